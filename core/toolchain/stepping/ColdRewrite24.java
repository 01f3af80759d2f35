import java.lang.classfile.*;
import java.lang.classfile.attribute.*;
import java.lang.classfile.instruction.*;
import java.lang.constant.*;
import java.util.*;

// Rewrites a class so that it tells ColdSteps what it does, as the other ColdRewrite does, for virtual machines that have
// java.lang.classfile (24 and later ones).
final class ColdRewrite {
    static final ClassDesc TO = ClassDesc.of("ColdSteps");
    static final ClassDesc OBJECT = ConstantDescs.CD_Object, TEXT = ConstantDescs.CD_String;

    // of returns a class rewritten; null: it does not come from the source.
    static byte[] of(byte[] code, String source) {
        ClassFile file = ClassFile.of(ClassFile.StackMapsOption.DROP_STACK_MAPS, ClassFile.DebugElementsOption.PASS_DEBUG);
        ClassModel model = file.parse(code);
        String from = model.findAttribute(Attributes.sourceFile()).map(a -> a.sourceFile().stringValue()).orElse("");
        if (!from.equals(source)) return null;
        return file.transformClass(model, ClassTransform.transformingMethods(
            m -> (m.flags().flagsMask() & (ClassFile.ACC_SYNTHETIC | ClassFile.ACC_BRIDGE)) == 0 || m.methodName().stringValue().startsWith("lambda$"),
            (builder, e) -> {
                if (e instanceof CodeModel body && (source.endsWith(".java") || !access(body))) builder.withCode(out -> rewrite(model, body.parent().get(), body, out));
                else builder.with(e);
            }));
    }

    // access reports a method that only reads or sets a field, as compilers of other languages make them for variables.
    static boolean access(CodeModel body) {
        int count = 0;
        boolean field = false;
        for (CodeElement e : body) {
            if (e instanceof Instruction) count++;
            if (e instanceof InvokeInstruction) return false;
            field |= e instanceof FieldInstruction;
        }
        return field && count <= 4;
    }

    static ClassDesc kind(ClassDesc of) {
        switch (of.descriptorString().charAt(0)) {
            case 'B': case 'S': case 'I': return ConstantDescs.CD_int;
            case 'L': case '[': return OBJECT;
        }
        return of;
    }

    static void tell(CodeBuilder out, String name, ClassDesc... of) {
        out.invokestatic(TO, name, MethodTypeDesc.of(ConstantDescs.CD_void, of));
    }

    static void rewrite(ClassModel model, MethodModel m, CodeModel body, CodeBuilder out) {
        String name = m.methodName().stringValue(), of = model.thisClass().asInternalName();
        boolean construct = name.equals("<init>");
        String simple = construct ? of.substring(Math.max(of.lastIndexOf('/'), of.lastIndexOf('$')) + 1) : name.startsWith("lambda$") ? "lambda" : name.equals("<clinit>") ? "static" : name;
        ClassDesc result = m.methodTypeSymbol().returnType();
        List<LocalVariable> variables = new ArrayList<>();
        Map<Label, Integer> places = new HashMap<>();
        List<CodeElement> elements = body.elementList();
        for (int i = 0; i < elements.size(); i++) {
            if (elements.get(i) instanceof LocalVariable v) variables.add(v);
            if (elements.get(i) instanceof LabelTarget t) places.put(t.label(), i);
        }
        Runnable enter = () -> {
            out.loadConstant(model.thisClass().asSymbol());
            out.loadConstant(simple);
            tell(out, "enter", ConstantDescs.CD_Class, TEXT);
        };
        Label start = out.newLabel(), end = out.newLabel();
        if (!construct) {
            enter.run();
            out.labelBinding(start);
        }
        boolean[] begun = {!construct}; // nothing is asked of an object that is not there yet
        int[] constructing = {0};
        for (int i = 0; i < elements.size(); i++) {
            CodeElement e = elements.get(i);
            switch (e) {
                case LineNumber at when begun[0] && at.line() > 0 -> {
                    out.with(e);
                    for (LocalVariable v : variables) {
                        String named = v.name().stringValue();
                        if (places.getOrDefault(v.startScope(), 0) > i || places.getOrDefault(v.endScope(), elements.size()) <= i || named.contains("$") || named.startsWith("<")) continue;
                        out.loadLocal(TypeKind.from(v.typeSymbol()), v.slot());
                        out.loadConstant(named);
                        tell(out, "local", kind(v.typeSymbol()), TEXT);
                    }
                    out.loadConstant(at.line());
                    tell(out, "line", ConstantDescs.CD_int);
                }
                case NewObjectInstruction n when construct && !begun[0] -> {
                    constructing[0]++;
                    out.with(e);
                }
                case InvokeInstruction call when construct && !begun[0] && call.opcode() == Opcode.INVOKESPECIAL && call.name().equalsString("<init>") -> {
                    out.with(e);
                    if (constructing[0]-- == 0) {
                        begun[0] = true;
                        enter.run();
                    }
                }
                case ReturnInstruction r when begun[0] -> {
                    if (r.typeKind() == TypeKind.VOID) tell(out, "returned");
                    else {
                        if (r.typeKind().slotSize() == 2) out.dup2();
                        else out.dup();
                        tell(out, "returned", kind(result));
                    }
                    out.with(e);
                }
                case OperatorInstruction o -> {
                    String word = switch (o.opcode()) {
                        case IADD, LADD -> "add";
                        case ISUB, LSUB -> "subtract";
                        case IMUL, LMUL -> "multiply";
                        default -> null;
                    };
                    if (word == null) {
                        out.with(e);
                        break;
                    }
                    ClassDesc type = o.typeKind() == TypeKind.LONG ? ConstantDescs.CD_long : ConstantDescs.CD_int;
                    out.invokestatic(TO, word, MethodTypeDesc.of(type, type, type));
                }
                case IncrementInstruction by -> {
                    out.iload(by.slot());
                    out.loadConstant(by.constant());
                    out.invokestatic(TO, "add", MethodTypeDesc.of(ConstantDescs.CD_int, ConstantDescs.CD_int, ConstantDescs.CD_int));
                    out.istore(by.slot());
                }
                default -> out.with(e);
            }
        }
        if (!construct) {
            out.labelBinding(end);
            out.exceptionCatchAll(start, end, end);
            out.dup();
            tell(out, "thrown", ConstantDescs.CD_Throwable);
            out.athrow();
        }
    }
}
