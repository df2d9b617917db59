import type { ModalEdge } from '../circuit/index.js';

/** Collects landings and edges while devices are laid in. */
export class Layout {
  readonly landings: string[] = [];
  readonly edgeA: number[] = [];
  readonly edgeB: number[] = [];
  readonly modal: ModalEdge[] = [];
  private readonly index = new Map<string, number>();

  landing(at: string): number {
    const known = this.index.get(at);
    if (known !== undefined) return known;
    this.index.set(at, this.landings.length);
    return this.landings.push(at) - 1;
  }

  edge(a: string, b: string): number {
    this.edgeA.push(this.landing(a));
    return this.edgeB.push(this.landing(b)) - 1;
  }

  /** An edge together with its two landings. */
  across(a: string, b: string): { edge: number; a: number; b: number } {
    return { edge: this.edge(a, b), a: this.landing(a), b: this.landing(b) };
  }

  modalEdge(a: string, b: string, kind: ModalEdge['kind']): { edge: number; modal: number } {
    const edge = this.edge(a, b);
    return { edge, modal: this.modal.push({ edge, kind }) - 1 };
  }
}
