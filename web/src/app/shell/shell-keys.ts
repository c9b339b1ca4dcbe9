import type { TreeActs } from '../acts/tree-acts';
import type { UndoService } from '../record/undo-service';
import { isTyping } from './keys';
import { BETWEEN_MS, ScanReader } from './scan-reader';

/** What keys ask of the frame. */
interface Frame {
  isReady(): boolean;
  takesLetters(): boolean;
  escape(target: EventTarget | null): void;
  scanned(text: string): void;
}

/** Keys of the frame: single letters, keys with Control, and a reader of tags, which types like a person but faster. */
export class ShellKeys {
  private readonly scans = new ScanReader();
  /** the keys being held until it is sure who typed them */
  private holding?: ReturnType<typeof setTimeout>;

  constructor(
    private readonly letters: Readonly<Record<string, (() => void) | undefined>>,
    private readonly frame: Frame,
    private readonly tree: Pick<TreeActs, 'ask' | 'cut' | 'cutParts' | 'put'>,
    private readonly undo: Pick<UndoService, 'undo' | 'redo'>,
  ) {}

  take(event: KeyboardEvent): void {
    if (event.key === 'Escape') return this.frame.escape(event.target);
    if (isTyping(event.target)) return;
    if (event.ctrlKey || event.metaKey) return this.withControl(event);
    if (event.key === 'Delete' && this.frame.isReady()) return this.tree.ask('delete');
    if (event.altKey) return;
    if (event.repeat) return this.press([event.key]);
    const { keys, text } = this.scans.feed(event.key, event.timeStamp);
    this.press(keys);
    if (text !== null) this.frame.scanned(text);
    if (text !== null || this.letters[event.key]) event.preventDefault();
    clearTimeout(this.holding);
    if (this.scans.isHolding) this.holding = setTimeout(() => this.press(this.scans.release()), BETWEEN_MS);
  }

  /** What is held is dropped: the frame goes. */
  forget(): void {
    clearTimeout(this.holding);
  }

  private withControl(event: KeyboardEvent): void {
    const key = event.key.toLowerCase();
    if (key === 'z') void (event.shiftKey ? this.undo.redo() : this.undo.undo());
    else if (!this.frame.isReady() || !this.cutOrPut(key)) return;
    event.preventDefault();
  }

  /** Cut and put of parts; where text is marked on the page, the keys are the browser’s. */
  private cutOrPut(key: string): boolean {
    if (key === 'x' && (getSelection()?.isCollapsed ?? true)) this.tree.cutParts();
    else if (key === 'v' && this.tree.cut().length > 0) void this.tree.put();
    else return false;
    return true;
  }

  /** Keys act when the study is there to be acted on; single letters only where the person wants them. The help is always to be had. */
  private press(pressed: readonly string[]): void {
    const keys = pressed.filter((key) => (this.frame.isReady() && this.frame.takesLetters()) || key === '?');
    for (const key of keys) this.letters[key]?.();
  }
}
