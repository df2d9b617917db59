import { Injectable, inject } from '@angular/core';
import { Router } from '@angular/router';
import { stops, type Stop } from './stops';

/** How long a stop may take to appear, ms: the job is read and reckoned on the way. */
const PATIENCE_MS = 20_000;

type Driver = ReturnType<(typeof import('driver.js'))['driver']>;

/** The walk through a sample job in ten short stops; it can be ended at any time and changes nothing. */
@Injectable({ providedIn: 'root' })
export class Tour {
  private readonly router = inject(Router);
  private driver: Driver | undefined;
  private round = 0;

  /** @param jobId the job that is walked through, its tag beside it on the board */
  async start(jobId: string): Promise<void> {
    const { driver } = await import('driver.js');
    this.driver = driver({
      allowClose: true,
      overlayOpacity: 0.45,
      stagePadding: 6,
      stageRadius: 4,
      animate: !matchMedia('(prefers-reduced-motion: reduce)').matches,
      popoverClass: 'tour-stop',
      onDestroyed: () => this.round++,
    });
    await this.show(jobId, 0);
  }

  private async show(jobId: string, i: number): Promise<void> {
    const mine = ++this.round;
    const stop = stops[i];
    await this.router.navigate(stop.stage ? ['/jobs', jobId, stop.stage] : ['/jobs']);
    const element = await this.found(stop, jobId, () => mine === this.round);
    if (!element || mine !== this.round) return;
    const last = i === stops.length - 1;
    this.driver?.highlight({
      element,
      popover: {
        title: stop.title,
        description: stop.text,
        showProgress: true,
        progressText: `${i + 1} of ${stops.length}`,
        showButtons: ['next', 'previous', 'close'],
        disableButtons: i === 0 ? ['previous'] : [],
        nextBtnText: last ? 'Done' : 'Next',
        prevBtnText: 'Back',
        onNextClick: () => (last ? this.end() : void this.show(jobId, i + 1)),
        onPrevClick: () => void this.show(jobId, i - 1),
        onCloseClick: () => this.end(),
        onPopoverRender: ({ nextButton }) => setTimeout(() => nextButton.focus()),
      },
    });
  }

  private end(): void {
    this.round++;
    this.driver?.destroy();
  }

  /** The element of a stop, once it is there. */
  private async found(
    { stage, at }: Stop,
    jobId: string,
    wanted: () => boolean,
  ): Promise<Element | undefined> {
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end && wanted();) {
      const shown = [...document.querySelectorAll(at)];
      const element = stage
        ? shown[0]
        : shown.find((card) => card.querySelector(`a[href*="${jobId}"]`));
      if (element && element.getBoundingClientRect().height > 0) return element;
      await new Promise((done) => setTimeout(done, 100));
    }
    return undefined;
  }
}
