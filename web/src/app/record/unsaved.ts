import { Injectable, inject, signal } from '@angular/core';
import type { CanDeactivateFn, RouterStateSnapshot } from '@angular/router';

/** Something typed that is not saved. */
export interface Typed {
  /** what it is of, in words; empty when there is nothing to lose */
  readonly what: () => string;
  /** whether it stays where it is when the page goes to an address */
  readonly stays: (next: RouterStateSnapshot) => boolean;
}

/** Somebody is about to leave something typed behind. */
interface AskedToLeave {
  readonly what: string;
  readonly answer: (mayGo: boolean) => void;
}

/** What is typed and not saved: whoever would drop it is asked first, also by closing the page. */
@Injectable({ providedIn: 'root' })
export class Unsaved {
  private readonly held = new Set<Typed>();
  readonly asked = signal<AskedToLeave | null>(null);

  constructor() {
    addEventListener('beforeunload', (event) => {
      if ([...this.held].some((typed) => typed.what() !== '')) event.preventDefault();
    });
  }

  /** Holds what is typed until the returned function is called. */
  hold(typed: Typed): () => void {
    this.held.add(typed);
    return () => this.held.delete(typed);
  }

  /** Whether the page may go to an address: at once when nothing is lost by it, else as the person says. */
  mayGoTo(next: RouterStateSnapshot): Promise<boolean> | true {
    const lost = [...this.held].find((typed) => typed.what() !== '' && !typed.stays(next));
    if (!lost) return true;
    this.asked()?.answer(false);
    return new Promise((done) => {
      this.asked.set({
        what: lost.what(),
        answer: (mayGo) => {
          this.asked.set(null);
          done(mayGo);
        },
      });
    });
  }
}

/** Asks before something typed would be dropped by going to another address, or to the same with something else chosen. */
export const asksForUnsaved: CanDeactivateFn<unknown> = (_component, _route, _now, next) => inject(Unsaved).mayGoTo(next);
