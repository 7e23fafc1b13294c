/**
 * What the rest of the program asks of a kind of part. It asks for a trait, never for a kind's name, so that a new
 * kind is found by everything that concerns it.
 */

/** A choice of the part that has to be so, for a trait to hold. */
export interface WithOption {
  option: string;
  is: string;
}

export interface Traits {
  /** Stores charge. */
  battery?: true;
  /** Turns with the engine and charges. */
  alternator?: true;
  /** Charges from the mains of a pitch, or of the rig's own generator. */
  mainsCharger?: true;
  /** Solar panels feed it. */
  panels?: true;
  /** Panels feed it straight, up to so many volts. */
  panelInput?: true;
  /** One diode to each bank. */
  diodes?: true;
  /** The rig's own mains. */
  generator?: true;
  /** A DC-DC charger: takes from one battery at its input and fills another at its output, one way and regulated. */
  charger?: true;
  /** Lifts the start battery a little from the coach side. */
  maintainer?: true;
  /** A heavy contact between two studs that a coil of its own closes. */
  solenoid?: true;
  /** Electronics that decide when a solenoid closes, and feed its coil. */
  module?: true;
  /** Decides by the volts at one of its senses: above one it closes or starts, below the other it lets go. */
  byVolts?: { sense: string; closes: string; opens: string; when?: WithOption };
  /** Links for a set time, then waits for its conditions again. */
  timed?: true;
  /** Closes some time after the key, whatever the volts. */
  delays?: true;
  /** Links for the engine only: shore power does nothing for the start battery through it. */
  engineOnly?: true;
  /** Does nothing until its source is being charged hard. */
  waitsForCharge?: true;
  /** Joins the banks for either one that is being charged: shore power then looks after the start battery too. */
  servesBothBanks?: true;
  /** A switch by which the driver links the banks. */
  linkSwitch?: true;
  /** A switch in a charger's enable lead. */
  enableSwitch?: true;
  /** Marker lights, from which something may be enabled. */
  lampCircuit?: true;
  /** A switch that is held to lend one bank to the other. */
  boost?: true;
  /** A hand switch round what passes one way only. */
  bypass?: true;
  /** Gives a feed that is live with the key. */
  ignition?: true;
  /** Passes current both ways while it is closed: a feed is followed through it. */
  joinsBothWays?: true;
  /** Nothing flows back through it, so that a lent bank does not get across. */
  oneWay?: true;
  /** Melts and is replaced. */
  fuse?: true;
  /** Opens on too much current and can be closed again. */
  breaker?: true;
  /** Parts a bank from what it feeds. */
  disconnect?: true;
  /** A monitor's shunt: it counts what passes through it. */
  shunt?: true;
  /** The plug between two vehicles. */
  towConnector?: true;
  /** Everything the coach uses. */
  houseLoads?: true;
  /** Everything the vehicle uses for itself, its starter too. */
  chassisLoads?: true;
  /** A three-way refrigerator's 12 V element. */
  fridge?: true;
  /** Goes to 12 V by itself, by a trigger. */
  choosesItself?: true;
  /** What a towed car draws. */
  towedCar?: true;
  /** Charging current ends or begins here: a drop on the way costs volts at a battery. */
  charges?: true;
  /**
   * A a terminal passes for hours, by its id, whatever one use of the rig asks: a parameter of the part, or a usual
   * figure (common practice) for what no label says.
   */
  carries?: Readonly<Record<string, string | number>>;
  /** Turned by a battery for seconds: its cable is a cranking cable, which no code asks to be fused. */
  cranked?: { terminal: string };
  /** Sits in the line: the two terminals a heavy cable passes through. */
  line?: readonly [left: string, right: string];
  /** The element whose amps are what the link passes, and which way they count: +1 toward the coach. */
  passes?: { element: string; is: 'contact' | 'converter' | 'diode' | 'wire'; toward: 1 | -1 };
}

export type TraitName = keyof Traits;
