import { cell, row, type RecordInput, type RecordSection } from './cells.js';

/** What is exchanged with an outside controller: each signal with its meaning, closed, open and unpowered, and both its ends. */
export function controllerSignals({ derived }: RecordInput): RecordSection {
  return {
    id: 'signals',
    title: 'Signals of the controller, in the order in which they are exchanged',
    heads: ['signal', 'kind', 'closed, or high', 'open, or low', 'unpowered', 'terminals'],
    widths: ['auto', 'auto', '*', '*', '*', 'auto'],
    rows: derived.signals.map((s) => [
      cell(`${s.order > 0 ? `${s.order}. ` : ''}${s.part}: ${s.does}`, s.way),
      cell(s.kind),
      cell(s.closed),
      cell(s.open),
      cell(s.unpowered),
      cell(s.ends.join('; ')),
    ]),
  };
}

/** What a person decided otherwise than the plan had it, and what is stated not to be required: each with its reason. */
export function decidedByHand({ job, derived }: RecordInput): RecordSection {
  const { decisions, adopted } = job;
  const named = (id: string): string => `Wire ${adopted?.wires[id]?.number ?? id}`;
  const wires = Object.entries(decisions.wires).map(
    ([id, { why, from, to, size, colour, number }]) => {
      const what = [
        from || to ? 'landed elsewhere' : '',
        size ? 'of another size' : '',
        colour ? 'of another colour' : '',
        number ? 'with another number' : '',
      ];
      return row(`${named(id)} ${what.filter(Boolean).join(', ') || 'decided'}`, why);
    },
  );
  const pins = Object.entries(decisions.pins).map(([task, { at, why }]) =>
    row(
      `${derived.names[task] ?? task} at ${at.replace(/^[^:]+/u, (id) => adopted?.devices[id]?.tag ?? id)}`,
      why,
    ),
  );
  const settings = Object.entries(decisions.settings).map(([code, { value, why }]) => {
    const of = derived.rows.find((r) => r.code === code);
    return row(`${code}${of ? ` ${of.name}` : ''}: ${of?.plannedText ?? String(value)}`, why);
  });
  const parts = Object.entries(decisions.devices).map(([id, { why }]) =>
    row(`${adopted?.devices[id]?.tag ?? id} otherwise`, why),
  );
  const stated = Object.entries(decisions.notRequired ?? {}).map(([id, { why, by, role }]) => {
    const text = derived.requirements.find((r) => r.id === id)?.text ?? id;
    return row(`Not required: ${text}`, `${why} (${by}, ${role})`);
  });
  return {
    id: 'decided',
    title: 'Decided by hand, and changes to what was there',
    heads: ['what', 'why'],
    widths: ['*', '*'],
    rows: [...wires, ...pins, ...settings, ...parts, ...stated],
  };
}

/** The likeliest faults of this machine in use, as they look and where to look. */
export const nightRows = ({ night }: RecordInput): RecordSection => ({
  id: 'night',
  title: 'When it stands at night: the likeliest faults of this machine',
  intro:
    'Reckoned from this wiring, one fault at a time. Power off, locked, proved dead and discharged before a hand goes in; fault codes stand in the maker’s manual.',
  heads: ['what is noticed', 'most likely', 'where to look'],
  widths: ['auto', '*', '*'],
  rows: (night ?? []).map((n) => row(n.noticed, n.likely, n.look)),
});
