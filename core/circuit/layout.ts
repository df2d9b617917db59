import type { ModalEdge } from './modes.js';

/** What an edge of the network is, to somebody who follows a circuit or looks for a fault. */
export type EdgeRole =
  | 'wire'
  | 'contact'
  | 'fuse'
  | 'link'
  | 'join'
  | 'bond'
  | 'coil'
  | 'load'
  | 'track'
  | 'input'
  | 'source'
  | 'primary'
  | 'probe'
  | 'hand'
  | 'fault';

/** One edge: whose it is, what it is, and its two landings, the plus or first one before the other. */
export interface Edge {
  /** Device, wire or link that owns it. */
  readonly of: string;
  readonly role: EdgeRole;
  readonly a: string;
  readonly b: string;
  /** A source of direct or alternating voltage. */
  readonly gives?: 'direct' | 'alternating';
}

/** An edge with its two landings by number. */
export interface Across {
  readonly edge: number;
  readonly a: number;
  readonly b: number;
}

/** Collects landings and edges while devices are laid in. */
export class Layout {
  readonly landings: string[] = [];
  readonly edgeA: number[] = [];
  readonly edgeB: number[] = [];
  readonly edges: Edge[] = [];
  readonly modal: ModalEdge[] = [];
  private readonly index = new Map<string, number>();

  landing(at: string): number {
    const known = this.index.get(at);
    if (known !== undefined) return known;
    this.index.set(at, this.landings.length);
    return this.landings.push(at) - 1;
  }

  has(at: string): boolean {
    return this.index.has(at);
  }

  edge(a: string, b: string, of: string, role: EdgeRole, gives?: Edge['gives']): number {
    this.edgeA.push(this.landing(a));
    this.edgeB.push(this.landing(b));
    return this.edges.push({ of, role, a, b, ...(gives ? { gives } : {}) }) - 1;
  }

  /** An edge together with its two landings. */
  across(a: string, b: string, of: string, role: EdgeRole, gives?: Edge['gives']): Across {
    return { edge: this.edge(a, b, of, role, gives), a: this.landing(a), b: this.landing(b) };
  }

  modalEdge(
    a: string,
    b: string,
    kind: ModalEdge['kind'],
    of: string,
    role: EdgeRole = 'source',
  ): { edge: number; modal: number } {
    const edge = this.edge(a, b, of, role, kind === 'limitedSupply' ? 'direct' : undefined);
    return { edge, modal: this.modal.push({ edge, kind }) - 1 };
  }
}
