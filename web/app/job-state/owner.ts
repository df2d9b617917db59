import { InjectionToken } from '@angular/core';
import type { Me } from './api';

/** Whose work this browser shows: an account's id; '' where the server has no accounts; nobody's after signing out. */
export type Owner = string;
export const NOBODY: Owner = 'nobody';

const OWNER = 'tactron.owner';
const ME = 'tactron.me';
const LEAVING = 'tactron.leaving';

function read(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** @returns whether the browser keeps it */
function write(key: string, value: string | null): boolean {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
    return true;
  } catch {
    return false;
  }
}

/** Owner of this window; another one takes a new window, so that nothing of the one is in the memory of the other. */
export const OWNER_HERE = new InjectionToken<Owner>('owner', {
  providedIn: 'root',
  factory: () => read(OWNER) ?? '',
});

/** Nobody was ever noted: what is kept here is of a release that told nobody apart. */
export const isUnknown = (): boolean => read(OWNER) === null;
/** @returns whether the browser keeps it: one that does not cannot tell people apart, and keeps no work either */
export const noteOwner = (owner: Owner): boolean => write(OWNER, owner);

/** Signing out was asked for, and the server has not heard of it yet. */
export const isLeaving = (): boolean => read(LEAVING) !== null;
export const noteLeaving = (leaving: boolean): boolean => write(LEAVING, leaving ? '1' : null);

/** Who the owner is, as the server said it last: known without network too. */
export function knownMe(): Me | null {
  try {
    return JSON.parse(read(ME) ?? 'null') as Me | null;
  } catch {
    return null;
  }
}
export const noteMe = (me: Me | null): boolean => write(ME, me && JSON.stringify(me));

/** Name of an owner's store in this browser. */
export const storeName = (owner: Owner): string => (owner ? `tactron.${owner}` : 'tactron');
