// It returns its own array, which changes later.
class DepthLog {
  private list: number[] = [];
  add(depth: number): void { this.list.push(depth); }
  all(): number[] { return this.list; }
  fill(depths: number[]): void { this.list = this.list.concat(depths); }
  summary(): string { return this.list.join(' '); }
  restore(text: string): void { for (const part of text.split(' ')) if (part) this.list.push(Number(part)); }
}
