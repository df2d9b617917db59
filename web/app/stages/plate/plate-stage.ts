import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job, LineBlock } from '@tactron/core/job';
import { Icon } from '../../controls/icon';
import { OpenJob } from '../../job-state/open-job';
import { ArrivalList } from './arrival-list';
import { beside, lineOf, optionalBlocks } from './blocks';
import type { LineBlockSpec } from './fields';
import { OwnTable } from './own-table';
import { ControlLoads } from './control-loads';
import { CurvesPanel } from './curves-panel';
import { PlateBlockCard } from './plate-block';

/** The one-line picture from supply to load; each block holds its plate in place. */
@Component({
  selector: 'tac-plate-stage',
  imports: [ArrivalList, ControlLoads, CurvesPanel, Icon, OwnTable, PlateBlockCard, RouterLink],
  templateUrl: './plate-stage.html',
  styleUrl: './plate-stage.scss',
})
export class PlateStage {
  protected readonly open = inject(OpenJob);
  protected readonly beside = beside;
  protected readonly ownTable = computed(() => this.plate().cable.table === 'own');
  private readonly plate = computed(() => (this.open.job() as Job).plate);

  /** Blocks in their order, each with those that may be added behind it. */
  protected readonly line = computed(() => {
    const blocks = lineOf(this.plate());
    const absent = optionalBlocks.filter((b) => !blocks.some((there) => there.id === b.id));
    const gapOf = { supply: 0, device: 1, cable: 2, motor: 3 } as Readonly<Record<string, number>>;
    return blocks.map((block, i) => {
      // The plus stands at the end of its gap: behind the last block that lies in it.
      const gap = block.gap ?? gapOf[block.id];
      const next = blocks[i + 1];
      const addable =
        gap === undefined || next?.gap === gap ? [] : absent.filter((b) => b.gap === gap);
      return { block, addable };
    });
  });

  protected add(block: LineBlockSpec): void {
    this.open.edit(
      `${block.name} added`,
      (draft) => void ((draft.plate.line ??= {})[block.id as LineBlock] = {}),
    );
    setTimeout(
      () =>
        document
          .querySelector<HTMLElement>(
            `section[aria-label="${block.name}"] input, section[aria-label="${block.name}"] .fields button`,
          )
          ?.focus(),
      60,
    );
  }

  protected remove(block: LineBlockSpec): void {
    this.open.edit(
      `${block.name} taken out`,
      (draft) => void delete draft.plate.line?.[block.id as LineBlock],
    );
  }
}
