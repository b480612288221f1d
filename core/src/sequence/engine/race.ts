import type { Sequence } from '../problem';

/** Moves before anybody is challenged, and before a search is first looked at. Choices of the search. */
const ALONE = 5000;
const FIRST_LOOK = 500;
/** Moves challengers begin with in a challenge, and moves the leader makes between two, as shares of those the leader has made. Choices of the search. */
const CHALLENGE = 0.25;
const BETWEEN = 0.5;

/** A search as a race knows it. */
export interface Contestant {
  readonly bestKnown: number;
  readonly movesMade: number;
  /** It knows by itself when to begin anew. */
  readonly isGuided: boolean;
  readonly run: (moves: number) => void;
  readonly sequence: () => Sequence;
}

/** A search, and what its best cost at each look: the first after `FIRST_LOOK` moves, each of the others at twice the age of the one before. */
interface Runner {
  readonly search: Contestant;
  readonly costs: number[];
}

function nextLook({ costs }: Runner): number {
  return FIRST_LOOK * 2 ** costs.length;
}

/**
 * Searches of one problem that race. What a search has settled on early it seldom leaves again, so now and then another begins anew. It is given up at the first look
 * at which it is no cheaper than the leader was at half its age: what comes of it shows late. One that is cheaper when it is as old as the leader takes its place.
 */
export class Race {
  private readonly begin: (before: number) => Contestant;
  private leader: Runner;
  private challenger: Runner | null = null;
  private begun = 1;
  private moves = 0;
  /** The age of the leader at which it is challenged next, and moves with which challengers may still begin until then. */
  private nextChallenge = ALONE;
  private challengeLeft = 0;

  /** `begin` begins a search, told how many there were before. */
  constructor(begin: (before: number) => Contestant) {
    this.begin = begin;
    this.leader = { search: begin(0), costs: [] };
  }

  /** One that was given up was no cheaper than the leader had been, who has not become dearer since. */
  private get best(): Contestant {
    const { leader, challenger } = this;
    return challenger !== null && challenger.search.bestKnown < leader.search.bestKnown ? challenger.search : leader.search;
  }

  get bestKnown(): number {
    return this.best.bestKnown;
  }

  get movesMade(): number {
    return this.moves;
  }

  sequence(): Sequence {
    return this.best.sequence();
  }

  /** Makes moves; the best so far is never lost. */
  run(moves: number): void {
    for (let left = moves; left > 0;) {
      if (this.challenger === null && this.challengeLeft > 0) this.beginAnew();
      const { leader, challenger } = this;
      const runner = challenger ?? leader;
      const { search } = runner;
      const stop = challenger !== null ? leader.search.movesMade : search.isGuided ? Number.POSITIVE_INFINITY : this.nextChallenge;
      const now = Math.min(left, nextLook(runner) - search.movesMade, stop - search.movesMade);
      search.run(now);
      left -= now;
      this.moves += now;
      const isLook = search.movesMade === nextLook(runner);
      if (isLook) runner.costs.push(search.bestKnown);
      if (challenger === null) {
        if (search.movesMade === stop) this.challengeLeft = stop * CHALLENGE;
      } else {
        this.challengeLeft -= now;
        if (search.movesMade === stop || isLook) this.compare(challenger);
      }
    }
  }

  private beginAnew(): void {
    this.challenger = { search: this.begin(this.begun), costs: [] };
    this.begun += 1;
  }

  private compare(challenger: Runner): void {
    const { leader } = this;
    const { search, costs } = challenger;
    const isAsOld = search.movesMade === leader.search.movesMade;
    const bar = isAsOld ? leader.search.bestKnown : (leader.costs[costs.length - 2] ?? Number.POSITIVE_INFINITY);
    if (search.bestKnown < bar) {
      if (!isAsOld) return;
      this.leader = challenger;
    }
    this.challenger = null;
    if (this.challengeLeft <= 0) this.nextChallenge = Math.ceil(this.leader.search.movesMade * (1 + BETWEEN));
  }
}
