import { Injectable } from '@angular/core';
import { Subject } from 'rxjs';

/** Acts that a key or button asks for and another part of the screen carries out. */
export type Command = 'find' | 'entry-line' | 'edit-piece' | 'record-inside' | 'record-above' | 'import';

@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly given$ = new Subject<Command>();
  readonly given = this.given$.asObservable();

  give(command: Command): void {
    this.given$.next(command);
  }
}
