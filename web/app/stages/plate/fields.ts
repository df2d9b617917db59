import type { PlateBlock } from '@tactron/core/line';
import type { Dimension } from '@tactron/core/units';
import type { Option } from '../../controls/choice';

/** A field of a block: where its value lies in the plates, and how it is entered. */
export type Field = {
  readonly path: string;
  readonly label: string;
  readonly also?: readonly string[];
  readonly wide?: boolean;
} & (
  | { readonly kind: 'quantity'; readonly dimension: Dimension; readonly unit: string }
  | { readonly kind: 'number'; readonly unit?: '%' }
  | {
      readonly kind: 'choice' | 'select';
      readonly options: readonly Option[];
      readonly numeric?: boolean;
    }
  | { readonly kind: 'flag'; readonly off: string }
  | { readonly kind: 'size' }
  | { readonly kind: 'text'; readonly placeholder?: string }
);

/** A block of the picture with the fields that describe it. */
export interface LineBlockSpec {
  readonly id: PlateBlock;
  readonly name: string;
  readonly fields: readonly Field[];
  /** Fields asked for only by those who want them. */
  readonly more?: readonly Field[];
  /** Which gap of the line it is added in: 0 before the device, 1 behind it, 2 before the motor, 3 behind it. */
  readonly gap?: 0 | 1 | 2 | 3;
}

export const quantity = (
  path: string,
  label: string,
  dimension: Dimension,
  unit: string,
): Field => ({
  kind: 'quantity',
  path,
  label,
  dimension,
  unit,
});
export const number = (path: string, label: string, unit?: '%'): Field => ({
  kind: 'number',
  path,
  label,
  unit,
});
export const choice = (
  path: string,
  label: string,
  options: readonly (readonly [string, string])[],
  numeric = false,
): Field => ({
  kind: 'choice',
  path,
  label,
  options: options.map(([value, name]) => ({ value, name })),
  numeric,
});
export const select = (
  path: string,
  label: string,
  options: readonly (readonly [string, string])[],
): Field => ({
  kind: 'select',
  path,
  label,
  options: options.map(([value, name]) => ({ value, name })),
});
export const flag = (path: string, label: string, off: string): Field => ({
  kind: 'flag',
  path,
  label,
  off,
});
export const size = (path: string, label: string): Field => ({ kind: 'size', path, label });
export const text = (path: string, label: string, placeholder?: string): Field => ({
  kind: 'text',
  path,
  label,
  placeholder,
});
