/**
 * Elimination pattern of a conductance network: which node is eliminated when, which entries fill in, and where each
 * edge and each update lands. It depends on the topology alone, so it is made once per installation or fault variant.
 */
export interface Pattern {
  readonly nodeCount: number;
  /** Elimination position → node. The reference is last. */
  readonly order: Int32Array;
  /** Node → elimination position. */
  readonly position: Int32Array;
  /** First slot of each position's row; one longer than the node count. */
  readonly rowStart: Int32Array;
  /** Slot → position of the later neighbour. */
  readonly column: Int32Array;
  /** Edge → slot, or −1 where both ends are the same node. */
  readonly edgeSlot: Int32Array;
  /** Slots that receive g·g/d, in the order in which `factorise` walks the pairs of each row. */
  readonly updateTarget: Int32Array;
  readonly edgeA: Int32Array;
  readonly edgeB: Int32Array;
  readonly reference: number;
}

/**
 * Orders the nodes by minimum degree (ties: the lower index; the reference last) and lays out fill and update targets.
 *
 * @param nodeCount number of nodes, at least 1
 * @param edgeA first node of each edge
 * @param edgeB second node of each edge
 * @param reference the node that is eliminated last and held at 0
 * @throws RangeError when an edge names a node outside 0 … nodeCount − 1
 * @example analyse(3, [0, 1], [1, 2], 2).order // Int32Array [0, 1, 2]
 */
export function analyse(
  nodeCount: number,
  edgeA: ArrayLike<number>,
  edgeB: ArrayLike<number>,
  reference: number,
): Pattern {
  const a = Int32Array.from(edgeA);
  const b = Int32Array.from(edgeB);
  for (let e = 0; e < a.length; e++) {
    if (a[e] < 0 || a[e] >= nodeCount || b[e] < 0 || b[e] >= nodeCount)
      throw new RangeError(`edge ${e} names a node that is not there`);
  }
  const { order, rows } = minimumDegree(nodeCount, a, b, reference);
  const position = new Int32Array(nodeCount);
  order.forEach((node, at) => (position[node] = at));
  const rowStart = new Int32Array(nodeCount + 1);
  rows.forEach((row, at) => (rowStart[at + 1] = rowStart[at] + row.length));
  const column = new Int32Array(rowStart[nodeCount]);
  rows.forEach((row, at) => {
    const columns = row.map((node) => position[node]).sort((x, y) => x - y);
    column.set(columns, rowStart[at]);
  });
  const slotOf = (p: number, q: number): number => {
    const low = Math.min(p, q);
    const high = Math.max(p, q);
    for (let s = rowStart[low]; s < rowStart[low + 1]; s++) if (column[s] === high) return s;
    return -1;
  };
  const edgeSlot = Int32Array.from(a, (node, e) =>
    node === b[e] ? -1 : slotOf(position[node], position[b[e]]),
  );
  const updateTarget: number[] = [];
  for (let i = 0; i < nodeCount; i++) {
    for (let p = rowStart[i]; p < rowStart[i + 1]; p++) {
      for (let q = p + 1; q < rowStart[i + 1]; q++) updateTarget.push(slotOf(column[p], column[q]));
    }
  }
  return {
    nodeCount,
    order,
    position,
    rowStart,
    column,
    edgeSlot,
    updateTarget: Int32Array.from(updateTarget),
    edgeA: a,
    edgeB: b,
    reference,
  };
}

function minimumDegree(
  nodeCount: number,
  a: Int32Array,
  b: Int32Array,
  reference: number,
): { order: Int32Array; rows: number[][] } {
  const joined = new Uint8Array(nodeCount * nodeCount);
  const degree = new Int32Array(nodeCount);
  const join = (p: number, q: number): void => {
    if (p === q || joined[p * nodeCount + q]) return;
    joined[p * nodeCount + q] = joined[q * nodeCount + p] = 1;
    degree[p]++;
    degree[q]++;
  };
  for (let e = 0; e < a.length; e++) join(a[e], b[e]);
  const order = new Int32Array(nodeCount);
  const rows: number[][] = [];
  const done = new Uint8Array(nodeCount);
  for (let at = 0; at < nodeCount; at++) {
    let best = -1;
    for (let node = 0; node < nodeCount; node++) {
      if (done[node] || (node === reference && at < nodeCount - 1)) continue;
      if (best < 0 || degree[node] < degree[best]) best = node;
    }
    done[best] = 1;
    order[at] = best;
    const row: number[] = [];
    for (let node = 0; node < nodeCount; node++)
      if (joined[best * nodeCount + node] && !done[node]) row.push(node);
    rows.push(row);
    for (let i = 0; i < row.length; i++) {
      degree[row[i]]--;
      for (let k = i + 1; k < row.length; k++) join(row[i], row[k]);
    }
  }
  return { order, rows };
}
