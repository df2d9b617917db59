import { installedOf, type Installation } from '@tactron/core/installation';

/**
 * The control network of an installation as a SPICE transient of 60 s with 1 ms steps: every landing a node, every edge a
 * resistor or source; contacts as switches driven by pulses.
 */
export function rehearsalNetlist(installation: Installation): string {
  const node = (n: number): string => (n === installation.reference ? '0' : `n${n}`);
  const lines = [
    '* control network',
    '.model sw sw(vt=0.5 ron=0.05 roff=1e12)',
    'Vs swc 0 pulse(0 1 3 1u 1u 5 10)',
  ];
  const used = new Set<number>();
  const edge = (name: string, e: number, value: string): void => {
    lines.push(`${name} ${node(installation.edgeA[e])} ${node(installation.edgeB[e])} ${value}`);
    used.add(e);
  };
  for (const w of installedOf(installation, 'wires').flatMap((x) => x.wires))
    edge(`Rw${w.edge}`, w.edge, String(w.ohm));
  for (const d of installation.devices) {
    if (d.kind === 'contacts') for (const c of d.contacts) edge(`S${c.edge}`, c.edge, 'swc 0 sw');
    if (d.kind === 'dial') {
      edge(`Rl${d.lower}`, d.lower, String(d.ohm * 0.6));
      edge(`Ru${d.upper}`, d.upper, String(d.ohm * 0.4));
    }
    if (d.kind === 'device') {
      for (const i of d.inputs) edge(`Ri${i.edge}`, i.edge, String(i.ohm));
      if (d.supply24) edge(`V24`, d.supply24.edge, String(d.supply24.volts));
      if (d.reference10) edge(`I10`, d.reference10.edge, '-5m');
      for (const a of d.analogue) edge(`Ra${a.edge}`, a.edge, String(a.voltageOhm));
      for (const e of d.joined) edge(`Rj${e}`, e, '1u');
    }
  }
  installation.landings.forEach(
    (_, i) => i !== installation.reference && lines.push(`Rleak${i} n${i} 0 1e9`),
  );
  lines.push('.options method=gear', '.tran 1m 60 0 1m', '.print tran v(n1)', '.end');
  return `${lines.join('\n')}\n`;
}
