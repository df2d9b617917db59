import { Component, computed, inject, input, signal } from '@angular/core';
import { attachmentsOf, type EvidenceOf } from '@tactron/core/job';
import { Icon } from '../controls/icon';
import { OpenJob } from '../job-state/open-job';
import { Attachments } from './attachments';

type Attachment = EvidenceOf<'attachment'>;

/** Pictures and files taken for one thing, with the way to add more: by the camera or from a file. */
@Component({
  selector: 'tac-attachment-row',
  imports: [Icon],
  template: `
    <div class="row">
      @for (a of shown(); track a.id) {
        <figure>
          <button type="button" (click)="look(a)" [attr.aria-label]="'Open ' + a.body.name">
            @if (a.body.thumbnail; as t) {
              <img [src]="t" alt="" />
            } @else {
              <span class="sheet kind">{{ ending(a) }}</span>
            }
          </button>
          <figcaption>
            <span class="name" [title]="a.body.name">{{ a.body.name }}</span>
            <button
              class="act quiet"
              type="button"
              [attr.aria-label]="'Take back ' + a.body.name"
              (click)="withdraw(a)"
            >
              <tac-icon name="close" />
            </button>
          </figcaption>
        </figure>
      }
      @if (canAdd()) {
        <label class="add"
          ><input
            class="visually-hidden"
            type="file"
            accept="image/*"
            capture="environment"
            (change)="take($event)"
          /><span class="act-like"><tac-icon name="camera" /> Picture</span></label
        >
        @if (files()) {
          <label class="add"
            ><input
              class="visually-hidden"
              type="file"
              multiple
              [accept]="types"
              (change)="take($event)"
            /><span class="act-like"><tac-icon name="attach" /> File</span></label
          >
        }
      }
    </div>
    @if (problem(); as p) {
      <p class="problem" role="alert">{{ p }}</p>
    }
  `,
  styleUrl: './attachment-row.scss',
})
export class AttachmentRow {
  /** What it is taken for: a step's key, a block of the plates, a wire. */
  readonly subject = input.required<string>();
  readonly canAdd = input(true);
  /** Other files than pictures are taken as well. */
  readonly files = input(true);
  private readonly open = inject(OpenJob);
  private readonly attachments = inject(Attachments);
  protected readonly problem = signal('');
  protected readonly types =
    'image/jpeg,image/png,image/webp,application/pdf,text/plain,text/csv,.csv,.txt,.log';
  protected readonly shown = computed(() => attachmentsOf(this.open.evidence(), this.subject()));

  protected async take(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    this.problem.set('');
    for (const file of field.files ?? [])
      await this.attachments
        .add(file, this.subject())
        .catch((error: Error) => this.problem.set(error.message));
    field.value = '';
  }

  /** A picture taken by mistake is taken back by a later entry; it stays in the record's history. */
  protected withdraw(a: Attachment): void {
    const { thumbnail: _t, ...body } = a.body;
    this.open.record(
      'attachment',
      a.subject,
      { ...body, withdrawn: true },
      { supersedes: a.id, why: 'taken back' },
    );
  }

  protected async look({ body }: Attachment): Promise<void> {
    const url = await this.attachments.urlOf(body.sha256);
    if (body.type.startsWith('image/')) window.open(url, '_blank', 'noopener');
    else {
      const link = document.createElement('a');
      link.href = url;
      link.download = body.name;
      link.click();
    }
    if (url.startsWith('blob:')) setTimeout(() => URL.revokeObjectURL(url), 60_000);
  }

  protected ending({ body }: Attachment): string {
    return (/\.(\w{1,5})$/u.exec(body.name)?.[1] ?? body.type.split('/')[1]).toUpperCase();
  }
}
