package statement

import (
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode"

	"coldverdict/internal/lazy"
)

// A label is a short text that announces what stands below it, or behind its colon.
type label struct {
	kind   string // "input", "output", "both", "note", "sample", or "problem": another heading of a problem's text
	sample bool   // it says sample or example
	format bool   // what follows describes, and is no data
	number int    // 0: it has none
	rest   string // what stands behind its colon
	colon  bool
}

// A meaning is what a word of a label says.
type meaning int

const (
	meansInput meaning = iota
	meansOutput
	meansSample
	meansNote
	meansFormat
	meansFor  // between two, it says that the first is meant
	meansFill // it says nothing
	meansCopy // the text of a button
	meansElse // what begins another part of a problem's text
)

// words are those of labels in the languages of large contest communities: English, German, Spanish, French,
// Portuguese, Polish, Russian, Chinese, Japanese, Korean. Longer ones are found first.
var words = map[meaning]string{
	meansInput:  "input,inputs,standard input,stdin,eingabe,eingaben,standardeingabe,entrada,entradas,entrée,entrées,d’entrée,d'entrée,entree,données en entrée,wejście,wejścia,wejściowe,ввод,ввода,вход,входа,входные данные,входных данных,входной файл,входного файла,输入,輸入,标准输入,入力,標準入力,입력",
	meansOutput: "output,outputs,standard output,stdout,expected,expected output,result,results,ergebnis,resultado,résultat,wynik,结果,結果,결과,ausgabe,ausgaben,standardausgabe,erwartet,salida,salidas,saída,saídas,saida,sortie,sorties,wyjście,wyjścia,wyjściowe,вывод,вывода,выход,выхода,выходные данные,выходных данных,выходной файл,выходного файла,результат,输出,輸出,标准输出,出力,標準出力,출력",
	meansSample: "beispieleingabe,beispieleingaben,beispielausgabe,beispielausgaben,sample,samples,example,examples,beispiel,beispiele,ejemplo,ejemplos,exemplo,exemplos,exemple,exemples,przykład,przykłady,przykładowe,przykładowy,пример,примеры,примера,примеров,样例,樣例,示例,范例,例子,例,入出力例,入力例,出力例,サンプル,예제,예시,예",
	meansNote:   "note,notes,explanation,explanations,explanation of sample,explanation of example,remark,hint,hints,erklärung,erläuterung,erläuterungen,anmerkung,hinweis,nota,notas,explicación,explication,explications,remarque,explicação,observação,observações,wyjaśnienie,uwaga,uwagi,пояснение,пояснения,примечание,примечания,замечание,объяснение,说明,說明,解释,解釋,提示,説明,解説,備考,설명,힌트,노트",
	meansFormat: "format,formats,specification,specifications,description,beschreibung,eingabeformat,ausgabeformat,formato,spécification,opis,описание,формат,格式,形式,형식,描述",
	meansFor:    "for,corresponding to,zu,zur,pour,para,dla,для,к,の",
	meansFill:   "test case,test,tests,testcase,case,cases,data,daten,dane,datos,dados,de,des,do,da,del,la,le,el,file,the,of,in,to,number,no,nr,screen,keyboard,on,from,program,given,attendue,attendu,esperada,esperado,oczekiwane,oczekiwany,ожидаемый,ожидаемые,预期,期望,№,text,console,given,as,und,and,et,y,e,i,и,和,与,及,と,및,数据,テスト,ケース,данные,файл",
	meansCopy:   "copy,copied,copy to clipboard,kopieren,copiar,copier,kopiuj,копировать,скопировать,复制,复制代码,コピー,복사",
	meansElse:   "constraints,constraint,limits,scoring,subtasks,subtask,task,statement,problem statement,source,author,comments,solution,submit,grenzen,bewertung,aufgabe,restricciones,puntuación,contraintes,restrições,pontuação,ograniczenia,punktacja,ограничения,условие,система оценки,约束,限制,数据范围,题目描述,题目背景,制約,問題文,配点,제한,문제",
}

// phrase is one of the words with what it means.
type phrase struct {
	text  string
	means meaning
	plain bool // it is written with blanks around it
}

// phrases are all of them by their first letters, longer ones first.
var phrases = sync.OnceValue(func() map[rune][]phrase {
	var all []phrase
	for means, list := range words {
		for _, text := range strings.Split(list, ",") {
			first, _ := firstRune(text)
			all = append(all, phrase{text, means, first < 0x2e80})
		}
	}
	slices.SortFunc(all, func(a, b phrase) int {
		if n := len(b.text) - len(a.text); n != 0 {
			return n
		}
		return strings.Compare(a.text, b.text)
	})
	byFirst := map[rune][]phrase{}
	for _, p := range all {
		first, _ := firstRune(p.text)
		byFirst[first] = append(byFirst[first], p)
	}
	return byFirst
})

func firstRune(text string) (rune, bool) {
	for _, r := range text {
		return r, true
	}
	return 0, false
}

// compounds are words that say several things.
var compounds = map[string][]meaning{
	"入力例": {meansInput, meansSample}, "出力例": {meansOutput, meansSample}, "入出力例": {meansInput, meansOutput, meansSample},
	"eingabeformat": {meansInput, meansFormat}, "ausgabeformat": {meansOutput, meansFormat},
	"beispieleingabe": {meansInput, meansSample}, "beispieleingaben": {meansInput, meansSample}, "beispielausgabe": {meansOutput, meansSample}, "beispielausgaben": {meansOutput, meansSample},
}

// longestLabel bounds what is taken for a label, in bytes.
const longestLabel = 80

var (
	colon       = lazy.New(`[:：]`)
	copiedGlued = lazy.New(`(?i)(?:\s*(?:copy to clipboard|copied|copy|kopieren|copiar|copier|kopiuj|копировать|скопировать|复制代码|复制|コピー|복사))+$`)
)

// columnLabel is the label that the head of a column holds, where it may be the name of a file, too: input.txt.
func columnLabel(head string) label {
	if name, extension, ok := strings.Cut(strings.TrimSpace(head), "."); ok && len(extension) <= 3 && !strings.ContainsAny(extension, " .") {
		if l := labelOf(name); l.kind == "input" || l.kind == "output" {
			return l
		}
	}
	return labelOf(head)
}

// labelOf reads a text as a label; kind is empty where it is none.
func labelOf(text string) (l label) {
	text = strings.TrimSpace(strings.ReplaceAll(text, "\u00a0", " "))
	head := text
	if at := colon().FindStringIndex(text); at != nil && at[0] <= longestLabel {
		head, l.rest, l.colon = text[:at[0]], strings.TrimSpace(text[at[1]:]), true
	}
	if len(head) > longestLabel || head == "" {
		return label{}
	}
	if !l.colon {
		head = copiedGlued().ReplaceAllString(head, "")
	} else if copiedGlued().FindString(l.rest) == l.rest {
		l.rest = ""
	}
	found := wordsIn(head)
	if found == nil {
		return label{}
	}
	kinds := map[meaning]int{} // where each comes first, from 1
	for i, one := range found.means {
		if kinds[one] == 0 {
			kinds[one] = i + 1
		}
	}
	l.sample, l.format, l.number = kinds[meansSample] > 0, kinds[meansFormat] > 0, found.number
	in, out := kinds[meansInput], kinds[meansOutput]
	switch {
	case kinds[meansNote] > 0:
		l.kind = "note"
	case in > 0 && out > 0 && kinds[meansFor] > min(in, out) && kinds[meansFor] < max(in, out):
		l.kind = map[bool]string{true: "input", false: "output"}[in < out]
	case in > 0 && out > 0:
		l.kind = "both"
	case in > 0:
		l.kind = "input"
	case out > 0:
		l.kind = "output"
	case l.sample:
		l.kind = "sample"
	case kinds[meansElse] > 0:
		l.kind = "problem"
	default:
		return label{}
	}
	return l
}

// labelWords are what a label is made of.
type labelWords struct {
	means  []meaning
	number int
}

// wordsIn takes a text apart into words of labels; nil where others stand there.
func wordsIn(text string) *labelWords {
	found := &labelWords{}
	rest := strings.ToLower(text)
	for rest != "" {
		r, _ := firstRune(rest)
		size := len(string(r))
		if unicode.IsDigit(r) {
			digits := len(rest) - len(strings.TrimLeft(rest, "0123456789"))
			if digits == 0 {
				return nil
			}
			n, err := strconv.Atoi(rest[:digits])
			if err != nil || n > 999 {
				return nil
			}
			if found.number > 0 && found.number != n {
				return nil
			}
			found.number = n
			rest = rest[digits:]
			continue
		}
		if !unicode.IsLetter(r) {
			if !strings.ContainsRune(" \t#.()[]-–—_*·•/&+|<>'’\"“”№【】（）「」～~", r) {
				return nil
			}
			rest = rest[size:]
			continue
		}
		i := slices.IndexFunc(phrases()[r], func(p phrase) bool {
			if !strings.HasPrefix(rest, p.text) {
				return false
			}
			next, more := firstRune(rest[len(p.text):])
			return !p.plain || !more || !unicode.IsLetter(next) || next >= 0x2e80
		})
		if i < 0 {
			return nil
		}
		p := phrases()[r][i]
		if several, ok := compounds[p.text]; ok {
			found.means = append(found.means, several...)
		} else {
			found.means = append(found.means, p.means)
		}
		rest = rest[len(p.text):]
	}
	return found
}
