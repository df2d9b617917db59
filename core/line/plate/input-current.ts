import { calculation, positive, result } from '../../calculation/index.js';
import { inputCurrentArguments } from '../feed.js';

/**
 * Input current of a drive fed from three phases.
 *
 * @example threePhaseInputCurrent.run({ outputKw: 7.5, supplyV: 400, motorEfficiency: 0.907, driveEfficiency: 0.96, truePowerFactor: 0.79 }).currentA // 15.7
 */
export const threePhaseInputCurrent = calculation<
  {
    outputKw: number;
    supplyV: number;
    motorEfficiency: number;
    driveEfficiency: number;
    truePowerFactor: number;
  },
  { currentA: number }
>({
  name: 'threePhaseInputCurrent',
  title: 'fact.inputCurrentOnThreePhases',
  args: {
    ...inputCurrentArguments,
    outputKw: positive('shaft power', 'kW', 10_000),
    supplyV: positive('supply, line to line', 'V', 1000),
  },
  results: { currentA: result('input current', 'A') },
  formula: 'I = P/(η_m·η_d·√3·U·λ)',
  source: 'definition of the true power factor; λ from the distortion of the bridge',
  confirm: 'Cable and protective device follow the rated input current in the maker’s manual.',
  example: {
    outputKw: 7.5,
    supplyV: 400,
    motorEfficiency: 0.907,
    driveEfficiency: 0.96,
    truePowerFactor: 0.79,
  },
  run: (a) => ({
    currentA:
      (a.outputKw * 1000) /
      (a.motorEfficiency * a.driveEfficiency * Math.sqrt(3) * a.supplyV * a.truePowerFactor),
  }),
});
