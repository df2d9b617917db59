import { valueAt } from './lane-reader';
import type { RehearsalSession } from './session';

type Shown = Pick<RehearsalSession, 'opened' | 'trace' | 'shownUs'>;

/** Value of a signal at the moment the picture shows; 0 before anything is known. */
export function shownValue(session: Shown, id: string): number {
  const trace = session.trace();
  return trace ? valueAt(trace, id, session.shownUs()) : 0;
}

/** Name of a state signal's value at the moment the picture shows; `otherwise` where the trace has no such signal. */
export function shownStateOf(session: Shown, id: string, otherwise: string): string {
  const names = session.trace()?.signals.find((s) => s.id === id)?.states;
  return names?.[shownValue(session, id)] ?? otherwise;
}

/** Fault that the device keeps; null while it has none. */
export function shownFault(session: Shown): string | null {
  const name = shownStateOf(session, 'device.fault', 'none');
  return name === 'none' ? null : name;
}

/** State of the device in words, with the fault that it keeps. */
export function deviceState(session: Shown): string {
  const names = session.opened()?.names ?? {};
  const state = shownStateOf(session, 'device.state', 'off');
  const fault = shownFault(session);
  const name = names[state] ?? state;
  return fault === null ? name : `${name}: ${names[fault] ?? fault}`;
}

/** The device feeds its motor at the frequency of the supply. */
export const feedsAtSupply = (session: Shown): boolean =>
  Object.keys(session.opened()?.tops ?? {}).length > 0;

/** What is read first: the output frequency, or the current of a device that does not change it. */
export const firstShown = (
  session: Shown,
): { readonly value: number; readonly decimals: number; readonly unit: string } =>
  feedsAtSupply(session)
    ? { value: shownValue(session, 'device.amps'), decimals: 1, unit: 'A' }
    : { value: shownValue(session, 'device.hz'), decimals: 2, unit: 'Hz' };
