import java.util.*;

import jdk.internal.org.objectweb.asm.*;
import jdk.internal.org.objectweb.asm.tree.*;

// Rewrites a class so that it tells ColdSteps what it does, for virtual machines up to the one that has java.lang.classfile.
final class ColdRewrite {
    static final String TO = "ColdSteps";

    // of returns a class rewritten; null: it does not come from the source.
    static byte[] of(byte[] code, String source) {
        ClassReader reader = new ClassReader(code);
        ClassNode node = new ClassNode();
        reader.accept(node, ClassReader.EXPAND_FRAMES);
        if (!source.equals(node.sourceFile)) return null;
        for (MethodNode m : node.methods) {
            if ((m.access & (Opcodes.ACC_SYNTHETIC | Opcodes.ACC_BRIDGE)) != 0 && !m.name.startsWith("lambda$")) continue;
            if (m.instructions.size() > 0 && (source.endsWith(".java") || !access(m))) rewrite(node, m);
        }
        ClassWriter writer = new ClassWriter(ClassWriter.COMPUTE_MAXS);
        node.accept(writer);
        return writer.toByteArray();
    }

    // access reports a method that only reads or sets a field, as compilers of other languages make them for variables.
    static boolean access(MethodNode m) {
        int count = 0;
        boolean field = false;
        for (AbstractInsnNode at : m.instructions.toArray()) {
            if (at.getOpcode() >= 0) count++;
            if (at instanceof MethodInsnNode) return false;
            field |= at instanceof FieldInsnNode;
        }
        return field && count <= 4;
    }

    static String kind(String descriptor) {
        switch (descriptor.charAt(0)) {
            case 'B': case 'S': case 'I': return "I";
            case 'L': case '[': return "Ljava/lang/Object;";
        }
        return descriptor.substring(0, 1);
    }

    static AbstractInsnNode call(String name, String descriptor) {
        return new MethodInsnNode(Opcodes.INVOKESTATIC, TO, name, descriptor, false);
    }

    static void rewrite(ClassNode node, MethodNode m) {
        InsnList list = m.instructions;
        boolean construct = m.name.equals("<init>");
        String result = Type.getReturnType(m.desc).getDescriptor();
        Map<AbstractInsnNode, Integer> places = new HashMap<>();
        for (int i = 0; i < list.size(); i++) places.put(list.get(i), i);
        boolean begun = !construct; // nothing is asked of an object that is not there yet
        String simple = construct ? node.name.substring(Math.max(node.name.lastIndexOf('/'), node.name.lastIndexOf('$')) + 1) : m.name.startsWith("lambda$") ? "lambda" : m.name;
        if (m.name.equals("<clinit>")) simple = "static";
        InsnList enter = new InsnList();
        enter.add(new LdcInsnNode(Type.getObjectType(node.name)));
        enter.add(new LdcInsnNode(simple));
        enter.add(call("enter", "(Ljava/lang/Class;Ljava/lang/String;)V"));
        int constructing = 0;
        int last = 0;
        for (AbstractInsnNode at : list.toArray()) {
            int op = at.getOpcode();
            if (at instanceof LineNumberNode && begun && ((LineNumberNode) at).line > 0) {
                int place = places.get(at);
                InsnList told = new InsnList();
                if (m.localVariables != null) {
                    for (LocalVariableNode v : m.localVariables) {
                        if (places.get(v.start) > place || places.get(v.end) <= place || v.name.contains("$") || v.name.startsWith("<")) continue;
                        told.add(new VarInsnNode(Type.getType(v.desc).getOpcode(Opcodes.ILOAD), v.index));
                        told.add(new LdcInsnNode(v.name));
                        told.add(call("local", "(" + kind(v.desc) + "Ljava/lang/String;)V"));
                    }
                }
                told.add(new LdcInsnNode(((LineNumberNode) at).line));
                told.add(call("line", "(I)V"));
                list.insert(at, told);
                continue;
            }
            if (op == Opcodes.NEW && construct && !begun) constructing++;
            if (op == Opcodes.INVOKESPECIAL && construct && !begun && ((MethodInsnNode) at).name.equals("<init>") && constructing-- == 0) {
                begun = true;
                list.insert(at, enter);
            }
            if (op >= Opcodes.IRETURN && op <= Opcodes.RETURN && begun) {
                InsnList told = new InsnList();
                if (op != Opcodes.RETURN) told.add(new InsnNode(op == Opcodes.LRETURN || op == Opcodes.DRETURN ? Opcodes.DUP2 : Opcodes.DUP));
                told.add(call("returned", "(" + (op == Opcodes.RETURN ? "" : kind(result)) + ")V"));
                list.insertBefore(at, told);
            }
            String name = op == Opcodes.IADD || op == Opcodes.LADD ? "add" : op == Opcodes.ISUB || op == Opcodes.LSUB ? "subtract" : op == Opcodes.IMUL || op == Opcodes.LMUL ? "multiply" : null;
            if (name != null) {
                boolean wide = op == Opcodes.LADD || op == Opcodes.LSUB || op == Opcodes.LMUL;
                list.set(at, call(name, wide ? "(JJ)J" : "(II)I"));
            } else if (op == Opcodes.IINC) {
                IincInsnNode by = (IincInsnNode) at;
                InsnList sum = new InsnList();
                sum.add(new VarInsnNode(Opcodes.ILOAD, by.var));
                sum.add(new LdcInsnNode(by.incr));
                sum.add(call("add", "(II)I"));
                sum.add(new VarInsnNode(Opcodes.ISTORE, by.var));
                list.insertBefore(at, sum);
                list.remove(at);
            }
        }
        if (!construct) {
            LabelNode start = new LabelNode(), end = new LabelNode();
            list.insert(start);
            list.insert(enter);
            list.add(end);
            list.add(new InsnNode(Opcodes.DUP));
            list.add(call("thrown", "(Ljava/lang/Throwable;)V"));
            list.add(new InsnNode(Opcodes.ATHROW));
            m.tryCatchBlocks.add(new TryCatchBlockNode(start, end, end, null));
        }
    }
}
