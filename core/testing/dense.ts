import type { Network } from '../circuit/index.js';

/**
 * Second opinion on linear networks: full modified nodal analysis, one unknown a node and one a voltage source, solved by
 * Gaussian elimination with partial pivoting. Shares nothing with the solver under test.
 */
export function denseSolve(network: Network): Record<string, number> {
  const nodes = network.nodes.filter((n) => n !== network.reference);
  const sources = network.elements.filter((e) => e.kind === 'voltageSource');
  const n = nodes.length + sources.length;
  const at = (node: string): number => nodes.indexOf(node);
  const a = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0));
  const add = (row: number, column: number, x: number): void => {
    if (row >= 0 && column >= 0) a[row][column] += x;
  };
  for (const e of network.elements) {
    const [p, q] = [at(e.a), at(e.b)];
    if (e.kind === 'resistor' || (e.kind === 'contact' && e.closed)) {
      const g = 1 / (e.kind === 'resistor' ? e.ohm : (e.ohm ?? 0.05));
      add(p, p, g);
      add(q, q, g);
      add(p, q, -g);
      add(q, p, -g);
    } else if (e.kind === 'currentSource') {
      if (p >= 0) a[p][n] -= e.amps;
      if (q >= 0) a[q][n] += e.amps;
    } else if (e.kind === 'voltageSource') {
      const k = nodes.length + sources.indexOf(e);
      add(p, k, 1);
      add(q, k, -1);
      add(k, p, 1);
      add(k, q, -1);
      add(k, k, -(e.ohm ?? 0));
      a[k][n] += e.volts;
    }
  }
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(a[r][i]) > Math.abs(a[pivot][i])) pivot = r;
    [a[i], a[pivot]] = [a[pivot], a[i]];
    for (let r = i + 1; r < n; r++) {
      const factor = a[r][i] / a[i][i];
      if (factor !== 0) for (let c = i; c <= n; c++) a[r][c] -= factor * a[i][c];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let sum = a[i][n];
    for (let c = i + 1; c < n; c++) sum -= a[i][c] * x[c];
    x[i] = sum / a[i][i];
  }
  return Object.fromEntries([
    [network.reference, 0],
    ...nodes.map((node, i) => [node, x[i]] as const),
  ]);
}
