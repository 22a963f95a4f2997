/** Towns, streets and landmarks of the isles with their positions: what an address search answers from. */
import type { Gazetteer, GazetteerEntry } from '@/core/geo/gazetteer';
import type { Point } from '@/core/geo/geo';
import { onBoard } from './chart';

type Spot = [x: number, y: number];
const point = ([x, y]: Spot): Point => {
  const [lng, lat] = onBoard(x, y);
  return { lat, lng };
};
const island = (name: string, at: Spot): GazetteerEntry => ({ kind: 'island', name, town: '', island: name, line: [point(at)] });
const town = (name: string, on: string, at: Spot): GazetteerEntry => ({ kind: 'town', name, town: name, island: on, line: [point(at)] });
const landmark = (name: string, where: string, on: string, at: Spot): GazetteerEntry => ({
  kind: 'landmark',
  name,
  town: where,
  island: on,
  line: [point(at)],
});
const street = (name: string, [where, on]: [string, string], numbers: [number, number], spots: Spot[]): GazetteerEntry => ({
  kind: 'street',
  name,
  town: where,
  island: on,
  line: spots.map(point),
  numbers,
});

const AMBLE: [string, string] = ['Port Amble', 'Amble'];
const LANTERN: [string, string] = ['Lantern Quay', 'Lantern'];
const GANNET: [string, string] = ['Gannet Bay', 'Gannet'];
const SKERRY: [string, string] = ['Outer Skerry', 'Skerry'];

export const GAZETTEER: Gazetteer = {
  format: 1,
  entries: [
    island('Amble', [200, 190]),
    island('Lantern', [470, 170]),
    island('Gannet', [475, 460]),
    island('Skerry', [150, 500]),
    town('Port Amble', 'Amble', [235, 235]),
    town('Lantern Quay', 'Lantern', [465, 205]),
    town('Gannet Bay', 'Gannet', [470, 440]),
    town('Outer Skerry', 'Skerry', [150, 497]),
    street(
      'Chapel Brae',
      AMBLE,
      [1, 40],
      [
        [215, 258],
        [190, 248],
        [160, 225],
        [132, 198],
      ],
    ),
    street(
      'Harbour Steps',
      AMBLE,
      [1, 18],
      [
        [248, 222],
        [280, 240],
        [312, 260],
      ],
    ),
    street(
      'Pilot Row',
      AMBLE,
      [1, 26],
      [
        [226, 214],
        [252, 206],
        [272, 196],
      ],
    ),
    street(
      'Kelp Lane',
      AMBLE,
      [2, 31],
      [
        [205, 270],
        [232, 284],
        [262, 288],
      ],
    ),
    street(
      'High Amble Road',
      AMBLE,
      [1, 90],
      [
        [190, 200],
        [185, 150],
        [170, 100],
        [168, 62],
      ],
    ),
    street(
      'The Quay',
      LANTERN,
      [1, 30],
      [
        [448, 212],
        [470, 215],
        [498, 222],
      ],
    ),
    street(
      'Rope Walk',
      LANTERN,
      [1, 40],
      [
        [418, 190],
        [452, 182],
        [485, 176],
        [520, 172],
      ],
    ),
    street(
      'Lamp Street',
      LANTERN,
      [1, 24],
      [
        [440, 160],
        [462, 172],
        [478, 188],
      ],
    ),
    street(
      'Tern Close',
      LANTERN,
      [1, 12],
      [
        [500, 140],
        [512, 148],
      ],
    ),
    street(
      'Slip Lane',
      GANNET,
      [1, 20],
      [
        [495, 432],
        [500, 425],
        [512, 412],
      ],
    ),
    street(
      'Shore Road',
      GANNET,
      [1, 60],
      [
        [398, 478],
        [425, 474],
        [450, 470],
        [480, 460],
      ],
    ),
    street(
      'Bridge Street',
      GANNET,
      [1, 34],
      [
        [455, 448],
        [470, 436],
        [486, 428],
      ],
    ),
    street(
      'Peat Road',
      GANNET,
      [1, 80],
      [
        [500, 460],
        [520, 490],
        [530, 530],
      ],
    ),
    street(
      'Light Path',
      SKERRY,
      [1, 16],
      [
        [130, 492],
        [152, 496],
        [175, 500],
      ],
    ),
    street(
      'Seal Wynd',
      SKERRY,
      [1, 14],
      [
        [140, 510],
        [156, 518],
      ],
    ),
    landmark('Amble Ferry Pier', ...AMBLE, [345, 207]),
    landmark('Signal Hill', ...AMBLE, [150, 90]),
    landmark('Lantern Ferry Pier', ...LANTERN, [398, 200]),
    landmark('Gannet Ferry Pier', ...GANNET, [452, 357]),
    landmark('Heron Ford', ...GANNET, [372, 490]),
    landmark('Outer Skerry Light', ...SKERRY, [130, 492]),
    landmark('Causeway Head', ...SKERRY, [162, 462]),
  ],
};
