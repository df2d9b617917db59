/** Titles of what a plate fact is reckoned from and gives. */
export const factTitles: Readonly<Record<string, string>> = {
  air: 'air',
  conductor: 'conductor',
  currentTheDeviceMayGiveHere: 'current the device may give here',
  factorForGrouping: 'factor for grouping',
  factorForTheAir: 'factor for the air',
  forSinglephaseFeed: 'for single-phase feed',
  forTheCarrierFrequency: 'for the carrier frequency',
  from: 'from',
  inTheTable: 'in the table',
  inertiaAtTheMotor: 'inertia at the motor',
  inputCurrentOnThreePhases: 'Input current on three phases',
  link: 'link',
  loadTorqueWhichHelps: 'load torque, which helps',
  mayCarry: 'may carry',
  motorLinkForThisSupply: 'Motor link for this supply',
  ofRatedTorque: 'of rated torque',
  outputVoltage: 'output voltage',
  overloadOfTheDevice: 'overload of the device',
  overloadSetting: 'Overload setting',
  plateCurrent: 'plate current',
  plateCurrentAgainstTheDevice: 'Plate current against the device',
  plateCurrentInThisLink: 'plate current in this link',
  plateVoltageThatSuitsIt: 'plate voltage that suits it',
  serviceFactor: 'service factor',
  setTo: 'set to',
  shareOfTheDevice: 'share of the device',
  shortestStop: 'shortest stop',
  shortestStopWithoutAResistor: 'Shortest stop without a resistor',
  torqueForAShortTime: 'Torque for a short time',
  usableCurrent: 'usable current',
  whatTheCableMayCarry: 'What the cable may carry',
  whatTheFeedMayCarry: 'What the feed may carry',
}; // prettier-ignore

/**
 * A title of a working: itself where it is in words already, as those of the calculations are.
 *
 * @example sayTitle('fact.usableCurrent') // 'usable current'
 */
export function sayTitle(title: string): string {
  const [, code, more] = /^fact\.(\w+)(?::(.+))?$/u.exec(title) ?? [];
  if (code === undefined) return title;
  const said = factTitles[code] ?? code;
  return more ? `${said}, ${more}` : said;
}
