/**
 * What has a memory: batteries, alternators, coils. Each offers its effect over a step of h seconds as values
 * of the network ("companion model"), so that one solve gives the implicit end point of the step.
 */
import type { RigNetwork } from '../operate/rigNetwork';

/** Something that passed a limit on the way, to be told. */
export interface News {
  what: string;
  why: string;
}

/** Tells once when something gets too hot to give its all, and once when it has cooled. */
class HotNews {
  private hot = false;
  constructor(
    private readonly name: string,
    private readonly from: number,
    private readonly remedy: string,
  ) {}

  at(celsius: number): News | undefined {
    const hot = celsius > this.from;
    if (hot === this.hot) return undefined;
    this.hot = hot;
    return hot
      ? { what: `${this.name} gives less, hot`, why: `it has passed ${this.from} °C: ${this.remedy}` }
      : { what: `${this.name} gives its all again`, why: `it is under ${this.from} °C` };
  }
}

export interface Dynamic {
  readonly part: string;
  /** Takes what depends on the operating inputs, after `writeValues`, before `offer`. */
  refresh(net: RigNetwork): void;
  /** Where a straight continuation puts the end of a step. */
  predict(h: number): void;
  /** Writes its values for a step of h seconds whose end is as predicted. */
  stamp(net: RigNetwork, h: number): void;
  /** Reads the solved end of the step; returns how far it is from the prediction, A. */
  observe(net: RigNetwork): number;
  /** Error of the step just read against a straight continuation, Ah. */
  error(h: number): number;
  /** Makes the end of the step the start of the next. With h = 0 only the current jumps. */
  accept(h: number): void;
  /** Forgets a slope that no longer holds. */
  discontinuity(): void;
  /** What has passed a limit since last asked. */
  takeNews?(): News | undefined;
  save(): readonly number[];
  restore(saved: readonly number[]): void;
}

/** What a thing remembers whose only memory is its temperature. */
export abstract class Warm {
  hottest: number;
  private readonly heat: HotNews;

  /** @param from °C from which it gives less. @param remedy what would help, for the telling. */
  constructor(
    readonly name: string,
    public celsius: number,
    from: number,
    remedy: string,
  ) {
    this.hottest = celsius;
    this.heat = new HotNews(name, from, remedy);
  }

  protected warmTo(celsius: number): void {
    this.celsius = celsius;
    this.hottest = Math.max(this.hottest, celsius);
  }

  takeNews(): News | undefined {
    return this.heat.at(this.celsius);
  }

  /** Temperatures go on from where they are: nothing to foresee, nothing that jumps. */
  predict(): void {}
  discontinuity(): void {}

  save(): readonly number[] {
    return [this.celsius];
  }

  restore([celsius]: readonly number[]): void {
    this.celsius = celsius!;
  }
}
