/**
 * The cheapest way through layers of options, with every cost named: which bow, finger, hand or breath at each note. What is
 * pinned leaves the other options of its layer out. Time and memory grow with the number of layers.
 */

/** One reason of a price. */
export interface Cost {
  name: string;
  price: number;
}

/** Takes costs as they are found; a price of zero is none. */
export type Tally = (name: string, price: number) => void;

export interface Question<S> {
  /** What may stand at each layer; none is empty. */
  layers: readonly (readonly S[])[];
  /** What an option costs by itself. */
  own(layer: number, option: S, tally: Tally): void;
  /** What it costs to go from an option of the layer before to one of this layer. */
  step(layer: number, before: S, option: S, tally: Tally): void;
  /**
   * Names of what prices hang on: layers with the same options and the same name cost the same, and are priced once. Music
   * repeats itself.
   */
  ownKey?(layer: number): string;
  stepKey?(layer: number): string;
  /** Which options of a layer may follow one of the layer before: from the first to before the last; all where it is not said. */
  follows?(layer: number, before: number): readonly [from: number, to: number];
  /** Prices by those names from earlier searches with the same prices: a search with one pin more asks few anew. */
  memory?: PriceMemory;
}

/** Prices that are known by name. */
export class PriceMemory {
  readonly own = new Map<string, Float64Array>();
  readonly step = new Map<string, Float64Array>();

  /** So that a studio that runs for weeks does not remember everything. */
  trim(): void {
    for (const known of [this.own, this.step]) if (known.size > MOST_REMEMBERED) known.clear();
  }
}
const MOST_REMEMBERED = 50_000;

/** A stretch of layers in which another way leaves the chosen one, and what it costs more. */
export interface Detour<S> {
  from: number;
  to: number;
  price: number;
  /** Indices of its options, and the options. */
  chosen: number[];
  options: S[];
}

/** An answer, which can be asked what else would do. */
export class Way<S> {
  /** Indices of the chosen options. */
  readonly chosen: number[];
  readonly total: number;
  private readonly forward: Float64Array[];
  private readonly backward: Float64Array[];
  private readonly stepPrices: (Float64Array | undefined)[];
  private readonly ownPrices: Float64Array[];

  constructor(private readonly question: Question<S>) {
    const { layers } = question;
    const n = layers.length;
    this.forward = [];
    this.stepPrices = [];
    const memory = question.memory ?? new PriceMemory();
    memory.trim();
    const onceIn =
      (known: Map<string, Float64Array>) =>
      (key: string | undefined, make: () => Float64Array): Float64Array => {
        const found = key === undefined ? undefined : known.get(key);
        if (found) return found;
        const made = make();
        if (key !== undefined) known.set(key, made);
        return made;
      };
    const [ownOnce, stepOnce] = [onceIn(memory.own), onceIn(memory.step)];
    this.ownPrices = layers.map((here, k) =>
      ownOnce(question.ownKey?.(k), () => Float64Array.from(here, (option) => priceOf((tally) => question.own(k, option, tally))))
    );
    for (let k = 0; k < n; k++) {
      const here = layers[k];
      const own = Float64Array.from(this.ownPrices[k]);
      if (k) {
        const before = layers[k - 1];
        const prices = stepOnce(question.stepKey?.(k), () => {
          const made = new Float64Array(before.length * here.length).fill(Infinity);
          for (let a = 0; a < before.length; a++)
            for (let [b, to] = this.following(k, a); b < to; b++)
              made[a * here.length + b] = priceOf((tally) => question.step(k, before[a], here[b], tally));
          return made;
        });
        const last = this.forward[k - 1];
        const best = new Float64Array(here.length).fill(Infinity);
        for (let a = 0; a < before.length; a++)
          for (let [b, to] = this.following(k, a); b < to; b++) {
            const price = last[a] + prices[a * here.length + b];
            if (price < best[b]) best[b] = price;
          }
        for (let b = 0; b < here.length; b++) own[b] += best[b];
        this.stepPrices[k] = prices;
      }
      this.forward.push(own);
    }
    // From the end: what is still to come after each option.
    this.backward = new Array<Float64Array>(n);
    for (let k = n - 1; k >= 0; k--) {
      const here = layers[k];
      const rest = new Float64Array(here.length);
      if (k + 1 < n) {
        const next = layers[k + 1];
        const prices = this.stepPrices[k + 1]!;
        const after = this.backward[k + 1];
        const nextOwn = this.ownPrices[k + 1];
        for (let a = 0; a < here.length; a++) {
          let best = Infinity;
          for (let [b, to] = this.following(k + 1, a); b < to; b++) {
            const price = prices[a * next.length + b] + nextOwn[b] + after[b];
            if (price < best) best = price;
          }
          rest[a] = best;
        }
      }
      this.backward[k] = rest;
    }
    this.chosen = n
      ? this.through(
          0,
          smallest(layers[0], (o) => this.forward[0][o] + this.backward[0][o])
        )
      : [];
    this.total = n ? this.forward[n - 1][this.chosen[n - 1]] : 0;
  }

  private following(layer: number, before: number): readonly [number, number] {
    return this.question.follows?.(layer, before) ?? [0, this.question.layers[layer].length];
  }

  get path(): S[] {
    return this.chosen.map((o, k) => this.question.layers[k][o]);
  }

  /** What the cheapest way through an option costs in all. */
  totalThrough(layer: number, option: number): number {
    return this.forward[layer][option] + this.backward[layer][option];
  }

  /** The option of the layer before from which an option is best reached. */
  private before(layer: number, option: number): number {
    const { layers } = this.question;
    const prices = this.stepPrices[layer]!;
    const width = layers[layer].length;
    return smallest(layers[layer - 1], (a) => this.forward[layer - 1][a] + prices[a * width + option]);
  }

  /** The option of the next layer to which it is best to go on. */
  private after(layer: number, option: number): number {
    const { layers } = this.question;
    const prices = this.stepPrices[layer + 1]!;
    const width = layers[layer + 1].length;
    const own = this.ownPrices[layer + 1];
    return smallest(layers[layer + 1], (b) => prices[option * width + b] + own[b] + this.backward[layer + 1][b]);
  }

  /** The cheapest way through an option: indices of its options. */
  private through(layer: number, option: number): number[] {
    const way = new Array<number>(this.question.layers.length);
    way[layer] = option;
    for (let k = layer; k > 0; k--) way[k - 1] = this.before(k, way[k]);
    for (let k = layer; k + 1 < way.length; k++) way[k + 1] = this.after(k, way[k]);
    return way;
  }

  /** The stretch of layers in which the cheapest way through another option leaves the chosen one; the first and its options. */
  detour(layer: number, option: number): { from: number; options: number[] } {
    const options = [option];
    let from = layer;
    for (let at = option; from > 0; from--) {
      at = this.before(from, at);
      if (at === this.chosen[from - 1]) break;
      options.unshift(at);
    }
    for (let k = layer, at = option; k + 1 < this.chosen.length; k++) {
      at = this.after(k, at);
      if (at === this.chosen[k + 1]) break;
      options.push(at);
    }
    return { from, options };
  }

  /**
   * The detours that are about as cheap: at each layer that is asked about and not passed by one already, through the best
   * option that differs.
   * @param most what a detour may cost more
   */
  detours(most: number, asks: (layer: number) => boolean, differs: (option: S, chosen: S) => boolean): Detour<S>[] {
    const { layers } = this.question;
    const found: Detour<S>[] = [];
    let after = -1;
    for (let k = 0; k < layers.length; k++) {
      if (k <= after || !asks(k)) continue;
      const chosen = layers[k][this.chosen[k]];
      let best = -1;
      for (let o = 0; o < layers[k].length; o++)
        if (differs(layers[k][o], chosen) && (best < 0 || this.totalThrough(k, o) < this.totalThrough(k, best))) best = o;
      const price = best < 0 ? Infinity : this.totalThrough(k, best) - this.total;
      if (price > most) continue;
      const { from, options } = this.detour(k, best);
      after = from + options.length - 1;
      found.push({ from, to: after, price, chosen: options, options: options.map((o, n) => layers[from + n][o]) });
    }
    return found;
  }

  /** Single options that would cost at most so much more in all. */
  closeOptions(most: number): { at: number; option: S; price: number }[] {
    return this.question.layers.flatMap((here, at) =>
      here.flatMap((option, o) => {
        const price = this.totalThrough(at, o) - this.total;
        return o !== this.chosen[at] && price <= most ? [{ at, option, price }] : [];
      })
    );
  }

  /** What each layer costs on the way. */
  get prices(): number[] {
    return this.chosen.map((_, k) => this.costsAt(k).reduce((n, c) => n + c.price, 0));
  }

  /** Named costs of an option of a layer, come from one of the layer before; of the chosen ones unless others are named. */
  costsAt(layer: number, option = this.chosen[layer], before = this.chosen[layer - 1]): Cost[] {
    const { layers } = this.question;
    const costs: Cost[] = [];
    const tally: Tally = (name, price) => void (price && costs.push({ name, price }));
    this.question.own(layer, layers[layer][option], tally);
    if (layer) this.question.step(layer, layers[layer - 1][before], layers[layer][option], tally);
    return costs;
  }
}

function priceOf(say: (tally: Tally) => void): number {
  let sum = 0;
  say((_, price) => (sum += price));
  return sum;
}

/** Index of the cheapest; the first of equals. */
function smallest(options: readonly unknown[], price: (option: number) => number): number {
  let best = 0;
  for (let o = 1; o < options.length; o++) if (price(o) < price(best) - 1e-9) best = o;
  return best;
}
