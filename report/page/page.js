"use strict";
for (const table of document.querySelectorAll("table")) {
  const heads = [...table.tHead.rows[0].cells];
  heads.forEach((head, at) => head.firstElementChild.addEventListener("click", () => {
    const down = head.getAttribute("aria-sort") === "ascending";
    heads.forEach((other) => other.removeAttribute("aria-sort"));
    head.setAttribute("aria-sort", down ? "descending" : "ascending");
    const number = head.classList.contains("number");
    const key = (row) => row.cells[at].dataset.value;
    const order = number
      ? (a, b) => (key(a) === "") - (key(b) === "") || key(a) - key(b)
      : (a, b) => key(a).localeCompare(key(b), "en", { numeric: true });
    const rows = [...table.tBodies[0].rows].sort((a, b) => (down ? order(b, a) : order(a, b)));
    table.tBodies[0].append(...rows);
  }));
}
const unfold = () => {
  const at = document.getElementById(location.hash.slice(1));
  if (at && at.tagName === "DETAILS") {
    at.open = true;
  }
};
addEventListener("hashchange", unfold);
unfold();
addEventListener("beforeprint", () => document.querySelectorAll("details").forEach((one) => { one.open = true; }));
