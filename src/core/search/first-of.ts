/** The first `limit` of a list, in order: a heap of that many, its last on top. `before` is negative where `a` comes first. */
export function firstOf(
  list: ArrayLike<number>,
  limit: number,
  before: (a: number, b: number) => number,
): readonly number[] {
  const heap: number[] = [];
  const sink = (from: number) => {
    let at = from;
    for (;;) {
      let last = at;
      for (const child of [2 * at + 1, 2 * at + 2])
        if (child < heap.length && before(heap[child]!, heap[last]!) > 0) last = child;
      if (last === at) return;
      [heap[at], heap[last]] = [heap[last]!, heap[at]!];
      at = last;
    }
  };
  if (limit === 0) return heap;
  // From the end: what came last is mostly what is asked for first, and then little has to move.
  for (let i = list.length - 1; i >= 0; i--) {
    const one = list[i]!;
    if (heap.length < limit) {
      heap.push(one);
      if (heap.length === limit) for (let at = (limit >> 1) - 1; at >= 0; at--) sink(at);
    } else if (before(one, heap[0]!) < 0) {
      heap[0] = one;
      sink(0);
    }
  }
  return heap.sort(before);
}
