import { Injectable } from '@angular/core';
import { DefaultUrlSerializer, type UrlTree } from '@angular/router';

/** Reads addresses; a link that was sent or kept before a part was called a part still opens its card. */
@Injectable()
export class OlderLinks extends DefaultUrlSerializer {
  override parse(url: string): UrlTree {
    const tree = super.parse(url);
    const { piece, ...others } = tree.queryParams as Readonly<Record<string, unknown>>;
    if (piece !== undefined) tree.queryParams = { part: piece, ...others };
    return tree;
  }
}
