package page

import (
	"encoding/json"
	"html"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// inBrowser runs a script in a page, and returns what its last expression is. What the page says on its
// console is an error.
func inBrowser(t *testing.T, text, script string, args ...string) map[string]any {
	t.Helper()
	testenv.Need(t, "chromium")
	dir := t.TempDir()
	file := filepath.Join(dir, "page.html")
	probe := "<script>addEventListener('load', () => { const got = (() => {" + script + "})(); const at = document.createElement('pre'); at.id = 'probed'; at.textContent = JSON.stringify(got); document.body.append(at); });</script>"
	require.NoError(t, os.WriteFile(file, []byte(strings.Replace(text, "</body>", probe+"</body>", 1)), 0o644))
	args = append([]string{"--headless", "--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--user-data-dir=" + filepath.Join(dir, "profile"), "--enable-logging=stderr", "--virtual-time-budget=5000", "--dump-dom"}, args...)
	browser := exec.Command("chromium", append(args, "file://"+file)...)
	var errs strings.Builder
	browser.Stderr = &errs
	out, err := browser.Output()
	require.NoError(t, err, errs.String())
	assert.NotContains(t, errs.String(), ":CONSOLE", "the console is quiet")
	found := regexp.MustCompile(`(?s)<pre id="probed">(.*?)</pre>`).FindSubmatch(out)
	require.NotNil(t, found, "the script came to its end: %s", errs.String())
	var got map[string]any
	require.NoError(t, json.Unmarshal([]byte(html.UnescapeString(string(found[1]))), &got))
	return got
}

func TestThePageSortsAndUnfolds(t *testing.T) {
	got := inBrowser(t, written(t, ".html"), `
		const table = document.querySelectorAll("table")[1];
		const column = (n) => [...table.tBodies[0].rows].map((row) => row.cells[n].dataset.value.slice(0, 11));
		const heads = [...table.tHead.rows[0].cells];
		const all = { title: document.title, heads: heads.map((h) => h.textContent) };
		heads[1].firstElementChild.click(); all.byTime = column(1);
		heads[1].firstElementChild.click(); all.byTimeDown = column(1); all.sorted = heads[1].getAttribute("aria-sort");
		heads[0].firstElementChild.click(); all.byName = column(0);
		const details = document.querySelectorAll("details");
		all.open = [...details].map((d) => d.open);
		details[1].querySelector("summary").click(); all.unfolded = details[1].open;
		details[0].open = false; location.hash = "#a";
		all.links = [...document.querySelectorAll("td a")].map((a) => a.hash);
		all.marked = document.querySelector("mark").textContent;
		all.scripts = document.scripts.length;
		all.away = document.querySelectorAll("[src], link, [href^=http]").length;
		return all;`)
	assert.Equal(t, "Fuel depots: stale.cpp: wrong answer", got["title"], "no text runs as a script")
	assert.Equal(t, []any{"case", "time"}, got["heads"], "what is for programs, or empty, is left out")
	assert.Equal(t, []any{"0.002", "0.012", "0.1"}, got["byTime"], "numbers are sorted as numbers")
	assert.Equal(t, []any{"0.1", "0.012", "0.002"}, got["byTimeDown"])
	assert.Equal(t, "descending", got["sorted"])
	assert.Equal(t, "samples/10", got["byName"].([]any)[1], "names are in natural order")
	assert.Equal(t, []any{true, false}, got["open"])
	assert.Equal(t, true, got["unfolded"])
	assert.Equal(t, []any{"#a"}, got["links"])
	assert.Equal(t, "9", got["marked"])
	assert.Equal(t, 2.0, got["scripts"], "the page's own, and this one")
	assert.Equal(t, 0.0, got["away"], "nothing is loaded from elsewhere")
}

// contrast finds the text whose contrast to what is behind it is least (WCAG 2.2, relative luminance).
const contrast = `
	const part = (v) => { v /= 255; return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4; };
	const numbers = (color) => color.match(/[\d.]+/g).map(Number);
	const light = ([r, g, b]) => 0.2126 * part(r) + 0.7152 * part(g) + 0.0722 * part(b);
	const behind = (at) => { for (; at; at = at.parentElement) { const c = numbers(getComputedStyle(at).backgroundColor); if (c.length < 4 || c[3] > 0) return c; } return [255, 255, 255]; };
	let least = 21, where = "";
	for (const at of document.querySelectorAll("body *")) {
		if (at.closest("svg, script") || ![...at.childNodes].some((n) => n.nodeType === 3 && n.data.trim())) continue;
		const a = light(numbers(getComputedStyle(at).color)), b = light(behind(at));
		const ratio = (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
		if (ratio < least) { least = ratio; where = at.outerHTML.slice(0, 80); }
	}
	return { least, where, paper: getComputedStyle(document.documentElement).backgroundColor, wide: document.documentElement.scrollWidth - innerWidth };`

func TestAllTextCanBeReadByDayAndByNight(t *testing.T) {
	day := inBrowser(t, written(t, ".html"), contrast)
	assert.GreaterOrEqual(t, day["least"].(float64), 4.5, "%v", day["where"])
	night := inBrowser(t, written(t, ".html"), contrast, "--blink-settings=preferredColorScheme=0")
	assert.GreaterOrEqual(t, night["least"].(float64), 4.5, "%v", night["where"])
	assert.NotEqual(t, day["paper"], night["paper"])
}

func TestThePageFitsATelephone(t *testing.T) {
	got := inBrowser(t, written(t, ".html"), contrast, "--window-size=500,900")
	assert.LessOrEqual(t, got["wide"].(float64), 0.0, "tables scroll by themselves, and the page does not")
}

func TestStepsAreWalkedWithTheKeyboardAlone(t *testing.T) {
	type change struct {
		Name  string `json:"name"`
		Value string `json:"value"`
	}
	type step struct {
		Number   int      `json:"number"`
		Line     int      `json:"line"`
		Depth    int      `json:"depth"`
		Function string   `json:"function"`
		Changes  []change `json:"changes,omitempty"`
		Output   string   `json:"output,omitempty"`
		OutputAt int      `json:"output_at,omitempty"`
		Returned string   `json:"returned,omitempty"`
	}
	var out strings.Builder
	require.NoError(t, WriteWalk(&out, &Walk{Title: "a.py on samples/one", Outcome: "wrong answer", Kind: Wrong, Maker: "Cold Verdict", Source: []string{"def f(x):", "    return x + 1", "n = 3", "print(f(n))", "n = '" + hostile + "'"}, Steps: []step{
		{Number: 1, Line: 3, Function: "<module>", Changes: []change{{"n", "3"}}},
		{Number: 2, Line: 4, Function: "<module>", Output: "4\n", OutputAt: 3},
		{Number: 3, Line: 2, Depth: 1, Function: "f", Changes: []change{{"x", "3"}}, Returned: "4"},
		{Number: 4, Line: 5, Function: "<module>", Changes: []change{{"n", hostile}}},
	}}))
	got := inBrowser(t, out.String(), `
		const press = (key) => dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
		const look = () => [document.querySelector(".line.current").dataset.line, document.getElementById("at").value, document.getElementById("frames").innerText.split(/\s+/).filter(Boolean).join(" ").slice(0, 60), document.getElementById("printed-so-far").textContent];
		const all = { title: document.title, end: look()[0] };
		press("Home"); all.first = look();
		press("ArrowRight"); all.second = look();
		press("o"); all.printed = look();
		press("ArrowLeft"); all.back = look()[0];
		press("Home"); document.getElementById("variable").value = "n"; press("v"); all.changed = look()[0];
		press("ArrowRight"); all.stays = look()[0];
		all.away = document.querySelectorAll("[src], link, [href^=http]").length;
		return all;`)
	assert.Equal(t, "a.py on samples/one: step by step", got["title"], "no text runs as a script")
	assert.Equal(t, "5", got["end"], "it begins where the program ended")
	assert.Equal(t, []any{"3", "step 1 of 4, line 3", "<module>, line 3 n 3", ""}, got["first"])
	assert.Equal(t, []any{"4", "step 2 of 4, line 4", "<module>, line 4 n 3", ""}, got["second"], "what the line prints is not there yet")
	assert.Equal(t, []any{"2", "step 3 of 4, line 2", "f, line 2 returns 4 x 3 <module>, line 4 n 3", "4\n"}, got["printed"], "both calls are there")
	assert.Equal(t, "4", got["back"])
	assert.Equal(t, "5", got["changed"])
	assert.Equal(t, "5", got["stays"])
	assert.Equal(t, 0.0, got["away"])
	for _, scheme := range []string{"1", "0"} {
		read := inBrowser(t, out.String(), contrast, "--blink-settings=preferredColorScheme="+scheme)
		assert.GreaterOrEqual(t, read["least"].(float64), 4.5, "%v", read["where"])
	}
}

func TestStepsShowCallsAndStructures(t *testing.T) {
	type change struct {
		Name   string `json:"name"`
		Value  string `json:"value"`
		Global bool   `json:"global,omitempty"`
		At     int    `json:"at,omitempty"`
	}
	type step struct {
		Number   int      `json:"number"`
		Line     int      `json:"line"`
		Depth    int      `json:"depth"`
		Function string   `json:"function"`
		Begins   bool     `json:"begins,omitempty"`
		Args     int      `json:"arguments,omitempty"`
		Changes  []change `json:"changes,omitempty"`
		Warning  string   `json:"warning,omitempty"`
		Returned string   `json:"returned,omitempty"`
	}
	var out strings.Builder
	require.NoError(t, WriteWalk(&out, &Walk{Title: "a.cpp", Maker: "Cold Verdict", Source: []string{"a", "b", "c", "d"}, Steps: []step{
		{Number: 1, Line: 1, Function: "main", Begins: true, Changes: []change{{Name: "row", Value: "{1, 2, 3}"}, {Name: "grid", Value: "[[1, 2], [3, 4]]"}}},
		{Number: 2, Line: 2, Function: "main", Changes: []change{{Name: "row", Value: "{1, 9, 3, ... (70)}", At: 4}, {Name: "sum", Value: "4", Global: true}}},
		{Number: 3, Line: 4, Depth: 1, Function: "f", Begins: true, Args: 2, Changes: []change{{Name: "this", Value: "{}"}, {Name: "x", Value: "5"}}, Returned: "7"},
		{Number: 4, Line: 3, Function: "main", Changes: []change{
			{Name: "root", Value: "-> {val: 5, left: -> {val: 2, left: null, right: null}, right: null}"}, {Name: "head", Value: "-> {v: 1, next: -> {v: 2, next: null}}"},
			{Name: "grid", Value: "[[1, 2], [3, 8]]"}, {Name: "odd", Value: `{"a"b": {1`}, {Name: "word", Value: `"north, [south]"`}, {Name: "by", Value: `{"a": 1}`},
		}, Warning: "2147483647 + 1 does not fit in int"},
	}}))
	got := inBrowser(t, out.String(), `
		const press = (key) => dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
		const cell = (name) => [...document.querySelectorAll("#frames > .frame > table > tbody > tr")].find((row) => row.cells[0].textContent === name);
		const text = (of) => [...of.childNodes].map((n) => n.nodeType === 3 ? n.textContent : "").join("");
		const all = {};
		all.calls = [...document.querySelectorAll(".call")].map((row) => row.textContent);
		all.current = document.querySelector(".call.current").textContent;
		all.doubt = document.querySelector(".doubt").textContent;
		all.root = cell("root").innerText.split(/\s+/).join(" ");
		all.head = cell("head").innerText.split(/\s+/).join(" ");
		all.grid = [...cell("grid").querySelectorAll("td.new")].map((c) => c.textContent);
		all.plain = ["odd", "word", "by"].map((name) => cell(name).cells[1].textContent);
		all.global = cell("sum").closest(".frame").querySelector("h3").textContent;
		press("Home"); all.row = [...cell("row").querySelectorAll(".cell")].map(text);
		press("ArrowRight"); press("ArrowRight"); all.waits = [...cell("row").querySelectorAll(".cell")].map(text); all.inside = document.querySelector(".call.current").textContent;
		press("ArrowUp"); all.up = document.querySelector(".line.current").dataset.line;
		press("ArrowDown"); all.over = document.querySelector(".line.current").dataset.line;
		all.later = [...cell("row").querySelectorAll(".cell")].map(text);
		press("Home"); press("w"); all.doubtful = document.querySelector(".line.current").dataset.line;
		press("Home"); const line = document.getElementById("line"); line.value = 4; line.dispatchEvent(new Event("change")); all.line = document.querySelector(".line.current").dataset.line;
		document.querySelectorAll(".call")[0].click(); all.clicked = document.querySelector(".line.current").dataset.line;
		return all;`)
	assert.Equal(t, []any{"main()", "f(x = 5) = 7"}, got["calls"])
	assert.Equal(t, "main()", got["current"])
	assert.Equal(t, "2147483647 + 1 does not fit in int", got["doubt"])
	assert.Equal(t, "root 5 left 2 right∅", got["root"])
	assert.Equal(t, "head 1 → 2 → ∅", got["head"])
	assert.Equal(t, []any{"8"}, got["grid"], "what changed is marked")
	assert.Equal(t, []any{`{"a"b": {1`, `"north, [south]"`, `{"a": 1}`}, got["plain"], "what cannot be drawn is text")
	assert.Equal(t, "of no call", got["global"])
	assert.Equal(t, []any{"1", "2", "3"}, got["row"])
	assert.Equal(t, []any{"1", "2", "3"}, got["waits"], "the line that calls has not come to its end")
	assert.Equal(t, "f(x = 5) = 7", got["inside"])
	assert.Equal(t, "2", got["up"])
	assert.Equal(t, "3", got["over"], "over the call")
	assert.Equal(t, []any{"1", "9", "3", "... (70)"}, got["later"])
	assert.Equal(t, "3", got["doubtful"])
	assert.Equal(t, "4", got["line"])
	assert.Equal(t, "1", got["clicked"])
}
