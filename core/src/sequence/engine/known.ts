import type { Entries } from './following';

/** How many are kept. A choice of the search. */
const MOST = 100;
/** How much dearer, as a share, one may be that is gone on from instead of one of which as many changes were drawn as it has items. A choice of the search. */
const WEARS = 0.4;
/** How much dearer than the cheapest is worth keeping. A choice of the search. */
const DEARER = 0.1;

/** Orders in which jobs come in and are begun, and the way of each. */
export interface Choice extends Entries {
  readonly ways: Int32Array;
}

/** A plan laid out by them: pieces and washes in order, and what that costs; Infinity when it cannot be laid out. */
export interface Laid extends Choice {
  readonly order: Int32Array;
  readonly cost: number;
}

interface Row {
  readonly key: string;
  readonly laid: Laid;
  /** How often a change of it was drawn. */
  drawn: number;
}

function keyOf({ entering, beginning, ways }: Choice): string {
  return [...entering, '', ...beginning, '', ...ways].join();
}

/**
 * What is known of a day by who comes in when: the plans laid out so far, of each choice the cheapest, and all choices ever tried. The one that is gone on from is
 * cheap, and not yet worn out.
 */
export class Known {
  /** Cheapest first. */
  private rows: Row[] = [];
  private readonly tried = new Set<string>();

  /** What the cheapest costs; Infinity when there is none. */
  get cost(): number {
    return this.rows[0]?.laid.cost ?? Number.POSITIVE_INFINITY;
  }

  /** Above that nothing is worth keeping. */
  get limit(): number {
    return this.cost * (1 + DEARER);
  }

  /** Keeps a plan unless one of the same choice is cheaper; gives the one that is kept. One that cannot be laid out is kept while there is no other. */
  add(laid: Laid): Laid {
    const { rows } = this;
    if (laid.cost === Number.POSITIVE_INFINITY && this.cost < laid.cost) return rows[0]!.laid;
    const key = keyOf(laid);
    this.tried.add(key);
    const same = rows.find((row) => row.key === key);
    if (same !== undefined && same.laid.cost < laid.cost) return same.laid;
    const others = rows.filter((row) => row !== same && row.laid.cost < Number.POSITIVE_INFINITY);
    const place = others.findIndex((row) => row.laid.cost > laid.cost);
    others.splice(place < 0 ? others.length : place, 0, { key, laid, drawn: same?.drawn ?? 0 });
    this.rows = others.slice(0, MOST);
    return laid;
  }

  /** What to go on from. */
  next(): Laid {
    let [next] = this.rows;
    let least = Number.POSITIVE_INFINITY;
    for (const row of this.rows) {
      const dearer = row.laid.cost / this.cost - 1;
      const worn = dearer + (WEARS * row.drawn) / row.laid.order.length;
      if (worn >= least) continue;
      least = worn;
      next = row;
    }
    return next!.laid;
  }

  /** Whether a choice is still to be tried, drawn as a change of this plan. From then on it is not. What changes nothing always is: it is laid out anew. */
  isNew(choice: Choice, of: Laid): boolean {
    const row = this.rows.find(({ laid }) => laid === of);
    if (row !== undefined) row.drawn += 1;
    const key = keyOf(choice);
    const isNew = !this.tried.has(key) || key === (row?.key ?? keyOf(of));
    this.tried.add(key);
    return isNew;
  }
}
