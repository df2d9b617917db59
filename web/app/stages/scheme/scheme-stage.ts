import { Component, computed, inject } from '@angular/core';
import type { Job, Scheme } from '@tactron/core/job';
import { Choice, type Option } from '../../controls/choice';
import { NumberField } from '../../controls/number-field';
import { QuantityField } from '../../controls/quantity-field';
import { OpenJob } from '../../job-state/open-job';
import { TimingStrip } from './timing-strip';

const yes = (value: string, name: string, hint = ''): Option => ({ value, name, hint });

/** The operator's wishes, and what they come to on this device. */
@Component({
  selector: 'tac-scheme-stage',
  imports: [Choice, QuantityField, NumberField, TimingStrip],
  templateUrl: './scheme-stage.html',
  styleUrl: './scheme-stage.scss',
})
export class SchemeStage {
  protected readonly open = inject(OpenJob);
  protected readonly scheme = computed(() => (this.open.job() as Job).scheme);
  protected readonly job = computed(() => this.open.job() as Job);

  protected readonly starts = [
    yes('twoWire', 'Two-wire: runs while a contact is closed'),
    yes('threeWire', 'Three-wire: start and stop button'),
    yes('threeWireTwoStarts', 'Three-wire: one start a direction'),
  ];
  protected readonly feeds = [yes('separate', 'start and stop fed separately'), yes('chained', 'start fed through stop')];
  protected readonly pulse = computed(() => this.scheme().startStop === 'threeWire' || this.scheme().startStop === 'threeWireTwoStarts');
  protected readonly startBys = [
    yes('selector', 'selector 0–1'),
    yes('maintainedButton', 'maintained button'),
    yes('levelContact', 'level contact'),
    yes('pressureContact', 'pressure contact'),
  ];
  protected readonly directions = [yes('forwardOnly', 'forward only'), yes('forwardReverse', 'forward and reverse')];
  protected readonly directionBys = [
    yes('selector', 'one selector: reverse – 0 – forward'),
    yes('twoContacts', 'two contacts'),
    yes('runAndDirection', 'run contact and direction selector'),
  ];
  protected readonly speeds = [yes('dial', 'dial at the station'), yes('keypad', 'keypad of the device')];
  protected readonly powers = [yes('stayStopped', 'stays stopped until a new start'), yes('restart', 'starts by itself')];
  protected readonly exposures = [yes('nobody', 'nobody'), yes('behindGuard', 'behind a guard'), yes('atMachine', 'people at the machine')];
  protected readonly stops = [yes('ramp', 'along the ramp'), yes('coast', 'coasts')];
  protected readonly logics = [yes('plus24', '24 V (sourcing contacts)'), yes('zeroVolt', '0 V (sinking contacts)')];

  protected readonly findings = computed(() => (this.open.derived()?.findings ?? []).filter((f) => !f.finding.rule.startsWith('plate.')));
  protected readonly plan = computed(() => this.open.derived()?.plan);

  protected set<K extends keyof Scheme>(wish: K, value: unknown): void {
    this.open.edit(`scheme ${wish}`, (draft) => {
      if (value === undefined) delete draft.scheme[wish];
      else draft.scheme[wish] = value as Scheme[K];
    });
  }
}
