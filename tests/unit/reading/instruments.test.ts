import assert from 'node:assert/strict';
import { test } from 'node:test';
import { familyOf } from '../../../src/core/style/instruments.ts';

test('instruments are told by their names in several languages', () => {
  const expected = {
    strings: ['Violin', 'Violoncello', 'Lute', 'Contrabass', 'Geige', 'Viola da gamba'],
    wind: ['Flute', 'Bass Clarinet', 'Bassoon', 'English Horn', 'Oboe d’amore', 'Flöte', 'Contrabassoon'],
    brass: ['Horn in F', 'Bass Trombone', 'Trompete'],
    keyboard: ['Piano', 'Cembalo', 'Organ'],
    voice: ['Soprano', 'Gesang'],
    percussion: ['Timpani', 'Bass Drum', 'Marimba']
  };
  for (const [family, names] of Object.entries(expected))
    for (const name of names) assert.equal(familyOf(name, undefined, 1), family, name);
  assert.equal(familyOf('', undefined, 2), 'keyboard');
  assert.equal(familyOf('Solo', 'wind.flutes.flute', 1), 'wind');
});
