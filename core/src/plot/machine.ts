/** A plotter or cutter, by what decides how long it takes and what it leaves behind. */
export interface Machine {
  readonly tool: 'pen' | 'knife';
  /** Of the line that a pen leaves, and how near a knife's cuts may lie before one pulls at the other; millimetres. */
  readonly lineWidth: number;
  /** With the pen down, millimetres a second, above 0. */
  readonly speed: number;
  /** With the pen up. */
  readonly travelSpeed: number;
  /** Millimetres a second, gained each second. */
  readonly acceleration: number;
  /** To lift the pen and put it down again, seconds. */
  readonly liftTime: number;
  /** How far a knife's edge trails behind the middle it turns about, millimetres. */
  readonly bladeOffset: number;
  /** Most places that it takes a second. */
  readonly placesPerSecond: number;
}

/** A small desktop machine: common practice, no source. */
export const FIRST_MACHINE: Machine = {
  tool: 'pen',
  lineWidth: 0.3,
  speed: 100,
  travelSpeed: 200,
  acceleration: 1000,
  liftTime: 0.15,
  bladeOffset: 0.25,
  placesPerSecond: 400,
};
