import ELK, { type ElkNode } from 'elkjs/lib/elk.bundled.js';
import { layouterOver, type LayeredGraph } from '../drawings/index.js';

/** The layout package as the page and the command line bring it, for specs. */
export const layouter = () => {
  const elk = new ELK();
  return layouterOver((graph) => elk.layout(graph as ElkNode) as Promise<LayeredGraph>);
};
