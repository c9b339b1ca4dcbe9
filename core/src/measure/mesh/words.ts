import { MeshFault } from './read-result';

/** Words of a text file one after another, with the line each stands on. */
export class Words {
  private at = 0;
  line = 1;

  constructor(private readonly text: string) {}

  /** the next word of the file, or null at its end */
  next(): string | null {
    const { text } = this;
    let at = this.at;
    for (; at < text.length; at++) {
      const code = text.charCodeAt(at);
      if (code === LINE_FEED) this.line++;
      if (code > SPACE) break;
    }
    if (at >= text.length) {
      this.at = at;
      return null;
    }
    let end = at + 1;
    while (end < text.length && text.charCodeAt(end) > SPACE) end++;
    this.at = end;
    return text.slice(at, end);
  }

  /** leaves out what is left of the line */
  skipLine(): void {
    const end = this.text.indexOf('\n', this.at);
    this.at = end < 0 ? this.text.length : end;
  }

  number(what: string): number {
    const word = this.next();
    if (word === null) this.fail(`the file ends where ${what} should stand`);
    const value = Number(word);
    if (!Number.isFinite(value)) this.fail(`“${word.slice(0, 40)}” stands where ${what} should stand`);
    return value;
  }

  fail(message: string): never {
    throw new MeshFault(`line ${this.line}: ${message}`);
  }
}

const LINE_FEED = 10;
const SPACE = 32;
