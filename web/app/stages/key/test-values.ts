import { v4 as uuid } from 'uuid';
import { Component, computed, inject, input, output } from '@angular/core';
import { takenOut, temporaryRegister } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';

/** Short ramps and an unusual frequency for the tests, keyed in one act and put back in one. */
@Component({
  selector: 'tac-test-values',
  template: `
    @if (back()) {
      <section class="sheet" aria-label="Test values">
        <p>Every test value is put back.</p>
        <button class="act" type="button" (click)="putBack()">Take off the list</button>
      </section>
    } @else if (values().length && ((ready() && !closed()) || inside())) {
      <section class="sheet" [class.in]="inside()" aria-label="Test values">
        <div>
          <h3>{{ inside() ? 'Test values are in the device' : 'Short ramps for the tests' }}</h3>
          <p class="soft">
            @if (inside()) {
              What the live tests expect follows them. They are put back before the job is handed
              over.
            } @else {
              Within what torque and braking allow, unequal so that an exchange is seen; put back
              before handing over.
            }
          </p>
          <ul>
            @for (v of values(); track v.code) {
              <li [attr.data-test-value]="v.code">
                <b class="mono">{{ v.code }}</b> {{ v.name === v.code ? '' : v.name }}:
                @if (inside()) {
                  <b>{{ v.testText }}</b> → {{ v.plannedText }}
                } @else {
                  {{ v.plannedText }} → <b>{{ v.testText }}</b>
                }
              </li>
            }
          </ul>
        </div>
        @if (inside()) {
          <button class="act main" type="button" (click)="putBack()">All put back</button>
        } @else {
          <button class="act" type="button" (click)="keyed()">All keyed</button>
        }
      </section>
    }
  `,
  styles: `
    .sheet {
      display: flex;
      flex-wrap: wrap;
      gap: 12px;
      align-items: end;
      justify-content: space-between;
      padding: 12px 16px;
    }
    .in {
      border-left: 4px solid var(--warn, currentColor);
    }
    h3,
    p {
      margin: 0;
    }
    ul {
      margin: 6px 0 0;
      padding-left: 18px;
    }
  `,
})
export class TestValues {
  /** Everything of the plan is keyed: values for the tests may follow. */
  readonly ready = input(false);
  /** Other values stand in the device: a session that went on ends here, the next starts from them. */
  readonly changed = output();
  private readonly open = inject(OpenJob);
  /** A signed record is not tested any more. */
  protected readonly closed = computed(() => this.open.signing().closed);
  protected readonly inside = computed(() =>
    temporaryRegister(this.open.evidence()).find((t) => t.kind === 'testValue' && !t.removed),
  );
  /** All were keyed back in the sheet: what is offered now is not what was put in. */
  protected readonly back = computed(() => {
    const put = this.inside()?.put.body.values;
    if (this.open.working()) return false;
    return put !== undefined && !this.values().some((v) => put[v.code] === v.test && v.held);
  });
  protected readonly values = computed(() => this.open.derived()?.testValues ?? []);

  protected keyed(): void {
    const values = Object.fromEntries(this.values().map((v) => [v.code, v.test]));
    const what = this.values()
      .map((v) => `${v.code} ${v.testText}`)
      .join(', ');
    this.open.record('temporary', `temporary.${uuid()}`, {
      version: 1,
      kind: 'testValue',
      what,
      values,
    });
    this.changed.emit();
  }

  protected putBack(): void {
    const put = this.inside();
    if (!put) return;
    const held = this.values().filter((v) => v.held);
    const values = Object.fromEntries(held.map((v) => [v.code, v.planned]));
    this.open.record('temporary', put.subject, { ...takenOut(put), values });
    this.changed.emit();
  }
}
