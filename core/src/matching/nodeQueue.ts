/** A binary heap of tree nodes by a key, the least key first. */
export class NodeQueue {
  #nodes = new Int32Array(256);
  #keys = new Float64Array(256);
  size = 0;

  /** Key of the node that {@link pop} takes next. */
  get least(): number {
    return this.#keys[0]!;
  }

  push(node: number, key: number): void {
    if (this.size === this.#nodes.length) this.#grow();
    const nodes = this.#nodes;
    const keys = this.#keys;
    let at = this.size++;
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (keys[above]! <= key) break;
      nodes[at] = nodes[above]!;
      keys[at] = keys[above]!;
      at = above;
    }
    nodes[at] = node;
    keys[at] = key;
  }

  pop(): number {
    const nodes = this.#nodes;
    const keys = this.#keys;
    const top = nodes[0]!;
    const node = nodes[--this.size]!;
    const key = keys[this.size]!;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= this.size) break;
      if (below + 1 < this.size && keys[below + 1]! < keys[below]!) below++;
      if (keys[below]! >= key) break;
      nodes[at] = nodes[below]!;
      keys[at] = keys[below]!;
      at = below;
    }
    nodes[at] = node;
    keys[at] = key;
    return top;
  }

  #grow(): void {
    const nodes = new Int32Array(this.#nodes.length * 2);
    const keys = new Float64Array(this.#keys.length * 2);
    nodes.set(this.#nodes);
    keys.set(this.#keys);
    this.#nodes = nodes;
    this.#keys = keys;
  }
}
