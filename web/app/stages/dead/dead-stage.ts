import { Component } from '@angular/core';

@Component({
  selector: 'tac-dead-stage',
  template: `
    <article>
      <h2>Dead checks</h2>
      <p>
        <b>This stage is not built yet.</b> It will hold the checks made with everything isolated,
        generated from this job's own wiring:
      </p>
      <ul>
        <li>
          isolate, lock, prove dead with a proved tester; discharge countdown, and the DC link
          measured
        </li>
        <li>motor links, protective conductor, terminal tug and torque</li>
        <li>every wire end to end with the ohms to expect in each switch position</li>
        <li>links and slide switches, potentiometer, insulation with the device disconnected</li>
      </ul>
      <p class="caution">
        Until then make these checks by your own list before power is on. The wire schedule of the
        Land stage is their base. Isolate, lock, prove dead, wait for the DC link to discharge and
        measure it; local codes and the maker's manual apply.
      </p>
    </article>
  `,
  styles:
    'article { display: grid; gap: 14px; max-width: 720px; } ul { display: grid; gap: 8px; margin: 0; } .caution { border-left: 5px solid var(--warn); padding: 8px 14px; background: var(--sheet); }',
})
export class DeadStage {}
