import { expect, it } from 'vitest';
import { Refusal } from '$lib/api/client';
import { refusedText, ruleText } from './verdicts';

it('says a rule without its drill where none is named', () => {
  expect(ruleText('tooSoonForRegion')).toBe('The same region worked hard too lately.');
  expect(ruleText('overWeeksLoad')).toBe('The load: more than this week may hold.');
});

it('says each rule that stands against a command, and else what is in the way', () => {
  const refused = (...problems: [string, string][]) =>
    new Refusal(
      422,
      problems[0]![0],
      problems.map(([code, field]) => ({ code, field })),
    );
  expect(refusedText(refused(['editRefused', 'overStep'], ['editRefused', 'overWeeksLoad']))).toBe(
    'More than one step a week. The load: more than this week may hold.',
  );
  expect(refusedText(refused(['dayTaken', 'date']))).toBe(
    'There is a session on that half of the day already.',
  );
  expect(refusedText(new Refusal(412, 'changedMeanwhile', []))).toContain('Someone else changed this');
});
