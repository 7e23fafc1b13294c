/**
 * Where a part's terminals come out of its drawing: offsets from the column's centre and the icon's top.
 * `up` terminals meet the heavy lines above, `down` ones the control lanes and the frame below.
 */
import type { PartKindId } from '../../core/parts/kinds';

export interface Anchor {
  dx: number;
  dy: number;
  out: 'up' | 'down';
}

export const ICON_HEIGHT = 52;

const up = (dx: number, dy: number): Anchor => ({ dx, dy, out: 'up' });
const down = (dx: number, dy = ICON_HEIGHT): Anchor => ({ dx, dy, out: 'down' });

/** By part kind, then terminal. Inline kinds give their two heavy terminals as left and right. */
export const ANCHORS: Readonly<Record<PartKindId, Readonly<Record<string, Anchor>>>> = {
  alternator: { output: up(4, 7), case: down(-12, 50) },
  'automatic-fridge': { plus: up(0, 6), trigger: down(12, 50), minus: down(-14, 50) },
  'battery-bank': { plus: up(26, 13), middle: up(0, 12), minus: down(-26, 12) },
  'bidirectional-module': { 'chassis-sense': down(18), 'coach-sense': down(-2), output: down(9), ground: down(-20) },
  'boost-switch': { feed: up(0, 2), fused: down(-10), output: down(10) },
  'chassis-loads': { plus: up(0, 8), minus: down(-14, 48) },
  'diode-isolator': { left: up(-32, 22), right: up(32, 22), input: up(0, 8) },
  'dcdc-charger': { left: up(-26, 24), right: up(26, 24), ground: down(-12), enable: down(10) },
  'differential-maintainer': { left: up(-28, 24), right: up(28, 24), ground: down(0) },
  'diode-lamp': { left: up(-32, 24), right: up(32, 24) },
  'bypass-switch': { left: up(-25, 26), right: up(25, 26) },
  'dual-charger': { left: up(-26, 24), right: up(26, 24), ground: down(-12), enable: down(10) },
  'line-breaker': { left: up(-25, 24), right: up(25, 24) },
  disconnect: { left: up(-25, 26), right: up(25, 26) },
  'enable-switch': { feed: down(-8), output: down(8) },
  'fridge-element': { plus: up(0, 6), minus: down(-14, 50) },
  generator: { plus: up(0, 8), minus: down(-16, 48) },
  'house-loads': { plus: up(0, 8), minus: down(-14, 48) },
  'ignition-delay-module': { ignition: down(-9), output: down(18), ground: down(-20) },
  'ignition-switch': { feed: up(0, 8), run: down(6) },
  'link-fuse': { left: up(-25, 24), right: up(25, 24) },
  'link-solenoid': { left: up(-32, 22), right: up(32, 22), 'coil-plus': down(-12, 53), 'coil-minus': down(12, 53) },
  'link-switch': { feed: down(-8), output: down(8) },
  'marker-lights': { feed: up(0, 8), output: down(6) },
  'shore-charger': { plus: up(0, 10), minus: down(-18, 48) },
  shunt: { left: up(-25, 24), right: up(25, 24) },
  'solar-charger': { plus: up(0, 10), minus: down(-18, 48) },
  'timed-window-module': {
    ignition: down(-9),
    'chassis-sense': down(20),
    'coach-sense': down(1),
    output: down(10),
    ground: down(-20),
  },
  'tow-connector': { left: up(-27, 24), right: up(27, 24), 'front-ground': down(-10), 'rear-ground': down(10) },
  'towed-car-loads': { plus: up(0, 13), minus: down(-14, 48) },
  'triggered-maintainer': { left: up(-26, 24), right: up(26, 24), ground: down(0) },
  'voltage-link-module': { 'chassis-sense': down(18), output: down(4), ground: down(-20) },
  'voltage-relay': { left: up(-28, 24), right: up(28, 24), ground: down(0) },
};
