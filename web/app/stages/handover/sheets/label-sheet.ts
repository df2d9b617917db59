import { Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job } from '@tactron/core/job';
import {
  dialMarks,
  jobCode,
  labelKinds,
  labelSizes,
  labelsOf,
  type LabelKind,
} from '@tactron/core/printed';
import { Choice } from '../../../controls/choice';
import { Icon } from '../../../controls/icon';
import { QrCode } from '../../../controls/qr-code';
import { NumberField } from '../../../controls/number-field';
import { Preferences } from '../../../frame/preferences';
import { OpenJob } from '../../../job-state/open-job';
import { DialScale } from './dial-scale';

const kindNames: Readonly<Record<LabelKind, string>> = {
  wires: 'Wires, both ends',
  terminals: 'Terminals',
  devices: 'Devices',
  panel: 'Panel',
  dial: 'Dial',
};
/** Below this height, mm, a label has room for one line and no code. */
const TALL = 9;
const OWN = 'own';

/** Labels to print and cut: by kind, in the size of the sheet that is at hand. */
@Component({
  selector: 'tac-label-sheet',
  imports: [Choice, DialScale, Icon, NumberField, QrCode, RouterLink],
  templateUrl: './label-sheet.html',
  styleUrl: './label-sheet.scss',
})
export class LabelSheet {
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly kind = signal<LabelKind>('wires');
  protected readonly kinds = computed(() =>
    labelKinds
      .filter((value) => value !== 'dial' || this.marks().length > 0)
      .map((value) => ({ value, name: kindNames[value] })),
  );
  private readonly size = signal('30x9');
  protected readonly sizes = [
    ...labelSizes.map(([w, h]) => ({ value: `${w}x${h}`, name: `${w} × ${h} mm` })),
    { value: OWN, name: 'another size' },
  ];
  protected readonly chosen = this.size.asReadonly();
  protected readonly ownWidth = signal(50);
  protected readonly ownHeight = signal(20);
  protected readonly box = computed(() => {
    const [w, h] =
      this.size() === OWN
        ? [this.ownWidth(), this.ownHeight()]
        : this.size().split('x').map(Number);
    return { w, h, tall: h >= TALL };
  });
  protected readonly marks = computed(() =>
    dialMarks(this.open.derived()?.steps ?? [], this.preferences.decimal()),
  );
  protected readonly dialTag = computed(() => {
    const dial = Object.values(this.job().adopted?.devices ?? {}).find(
      (d) => d.kind === 'potentiometer',
    );
    return dial?.tag ?? 'dial';
  });
  protected readonly labels = computed(() => {
    const names = this.open.derived()?.names ?? {};
    const code = jobCode(this.job().id, this.open.state().revision, document.baseURI);
    return labelsOf(this.kind(), this.job(), (id) => names[`device.${id}`] ?? '', code);
  });
  protected choose(value: string): void {
    this.size.set(value);
  }

  protected print(): void {
    window.print();
  }
}
