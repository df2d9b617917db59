import { Component, computed, input } from '@angular/core';
import {
  mdiAlertOctagonOutline,
  mdiAlertOutline,
  mdiArchiveOutline,
  mdiCheckBold,
  mdiChevronDoubleRight,
  mdiCloudCheckOutline,
  mdiCloudOffOutline,
  mdiContentCopy,
  mdiDownload,
  mdiFlagOutline,
  mdiInformationOutline,
  mdiKeyboardOutline,
  mdiLaptop,
  mdiLightningBolt,
  mdiLockOutline,
  mdiMagnify,
  mdiPlus,
  mdiPrinterOutline,
  mdiRedo,
  mdiTrayArrowUp,
  mdiUndo,
  mdiWeatherNight,
  mdiWeatherSunny,
  mdiClose,
  mdiPlay,
  mdiPause,
  mdiRecordCircleOutline,
  mdiScissorsCutting,
  mdiRestart,
  mdiSkipNext,
  mdiCameraPlusOutline,
  mdiPaperclip,
  mdiHistory,
  mdiCogOutline,
} from '@mdi/js';

const paths = {
  stop: mdiAlertOctagonOutline,
  warn: mdiAlertOutline,
  archive: mdiArchiveOutline,
  done: mdiCheckBold,
  next: mdiChevronDoubleRight,
  server: mdiCloudCheckOutline,
  waiting: mdiCloudOffOutline,
  copy: mdiContentCopy,
  download: mdiDownload,
  flag: mdiFlagOutline,
  advise: mdiInformationOutline,
  keys: mdiKeyboardOutline,
  here: mdiLaptop,
  live: mdiLightningBolt,
  lock: mdiLockOutline,
  search: mdiMagnify,
  add: mdiPlus,
  print: mdiPrinterOutline,
  redo: mdiRedo,
  import: mdiTrayArrowUp,
  undo: mdiUndo,
  night: mdiWeatherNight,
  day: mdiWeatherSunny,
  close: mdiClose,
  play: mdiPlay,
  pause: mdiPause,
  record: mdiRecordCircleOutline,
  break: mdiScissorsCutting,
  restart: mdiRestart,
  step: mdiSkipNext,
  camera: mdiCameraPlusOutline,
  attach: mdiPaperclip,
  history: mdiHistory,
  settings: mdiCogOutline,
  mdiCameraPlusOutline,
  mdiPaperclip,
  mdiHistory,
  mdiCogOutline,
} as const;
export type IconName = keyof typeof paths;

/** An icon beside a word; alone it needs a label on its button. */
@Component({
  selector: 'tac-icon',
  template: `<svg viewBox="0 0 24 24" aria-hidden="true">
    <path [attr.d]="path()" fill="currentColor" />
  </svg>`,
  styles:
    ':host { display: inline-flex; width: 1.25em; height: 1.25em; flex: none; } svg { width: 100%; height: 100%; }',
})
export class Icon {
  readonly name = input.required<IconName>();
  protected readonly path = computed(() => paths[this.name()]);
}
