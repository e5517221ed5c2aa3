/** For so long what was worked out is given again, in milliseconds: it may depend on the time. */
const GOOD_FOR = 60_000;
/** So many answers are kept, and so many characters of them. */
const MOST = 20;
const MOST_CHARACTERS = 20_000_000;

/** What was worked out of late, by what it depends on: asked again, it is not worked out again. */
export class KeptAnswers {
  private readonly kept = new Map<string, { readonly at: number; readonly json: string }>();

  get(key: string): string | undefined {
    const found = this.kept.get(key);
    return found && performance.now() - found.at < GOOD_FOR ? found.json : undefined;
  }

  put(key: string, json: string): void {
    this.kept.delete(key);
    this.kept.set(key, { at: performance.now(), json });
    let characters = [...this.kept.values()].reduce((sum, one) => sum + one.json.length, 0);
    for (const [oldest, { json: old }] of this.kept) {
      if (this.kept.size <= MOST && characters <= MOST_CHARACTERS) break;
      this.kept.delete(oldest);
      characters -= old.length;
    }
  }
}
