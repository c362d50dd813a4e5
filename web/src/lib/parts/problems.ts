import type { FieldProblem, Refusal } from '$lib/api/client';
import { chosen } from './format';

/** One sentence for a problem at a field. */
export function problemText(problem: FieldProblem): string {
  const n = (name: string) => chosen(problem.numbers?.[name] ?? 0);
  const words: Record<string, string> = {
    required: 'Fill this in.',
    tooLong: `At most ${n('most')} characters.`,
    dateInFuture: 'This lies in the future.',
    dateInPast: 'This day is over.',
    dateTooFar: `At most ${n('most')} days ahead.`,
    dateTooEarly: 'Check the year.',
    outOfRange: `Between ${n('min')} and ${n('max')}.`,
    notANumber: 'Write a number, such as 21.5.',
    wrongType: 'Write a number, such as 21.5.',
    negative: 'Zero or more.',
    trialsCount: 'One to five trials.',
    gapNegative: 'A gap is zero or more.',
    gapBeyondLeg: 'The gap is longer than the leg: check both.',
    legNotPositive: 'A leg length is more than zero.',
    readingInFuture: 'A reading lies in the future.',
    sideNeeded: 'Say which side.',
    noSides: 'This measure has no sides.',
    unknownStandard: 'Choose square or open.',
    reasonTooShort: `Write at least ${n('least')} characters.`,
    passwordTooShort: `At least ${n('least')} characters.`,
    emailTaken: 'Someone signs in with this address already.',
    noEmail: 'Write an e-mail address.',
    unknownTimeZone: 'Choose a time zone.',
    untilBeforeFrom: 'The last day comes before the first.',
    minutesOutOfRange: `Between ${n('least')} and ${n('most')} minutes.`,
    reviewTooEarly: `Two pain-free sessions come first: ${n('painFree')} of ${n('needed')} so far.`,
    oneOwner: 'A studio has one owner.',
    unlikely: `Far from the usual ${n('median')}, by more than ${n('limit')}. Check it; if it is right, confirm it.`,
    offStep: `Steps of ${n('step')}.`,
    unknownLevel: 'Choose a level.',
    otherInstrument: 'This measure is not read with that.',
    successesOutOfRange: 'No more than there were attempts.',
    heelsInsideHips: `More than the hip width of ${n('min')}.`,
    heelsBeyondLegs: `The legs reach ${n('max')} at most: check both.`,
    pictureTooLarge: 'At most 10 MiB and 50 megapixels.',
    notAPicture: 'This is no PNG, JPEG or WebP picture.',
    facesNotAscending: 'Low, middle, high: each higher than the one before.',
    minNotUnderMax: 'The least is under the greatest.',
    semNotPositive: 'More than zero.',
    stepsCount: `One to ${n('most')} steps.`,
    unknownStudent: 'No student of this name here.',
    ambiguousStudent: 'Two students have this name: use student_id.',
    otherStudent: 'This is another student.',
    unknownMeasure: 'No such measure.',
    unknownWord: 'This word is not known here.',
    notADate: 'Write a date, such as 2026-03-02.',
    notAnId: 'This is no id.',
    unknownCompensation: 'This measure has no such compensation.',
    countsOnly: 'Counts have successes and attempts, no trials.',
    notCaptured: 'Press Enter to take this trial, or clear the field.',
  };
  return words[problem.code] ?? pageText(problem.code);
}

/** One sentence for an answer that belongs to no field. */
export function pageText(code: string): string {
  const words: Record<string, string> = {
    unreachable: 'The server cannot be reached. What you typed is still here; try again.',
    signedOut: 'You are signed out. Sign in and come back.',
    wrongSignIn: 'The address or the password is wrong.',
    lockedOut: 'Too many wrong passwords. Try again in five minutes.',
    tooManyTries: 'Too many tries. Wait a minute.',
    readsOnly: 'You can read here, not change.',
    notFound: 'This is not here, or not yours.',
    idTaken: 'This was sent twice with different contents. Reload and check.',
    changedMeanwhile: 'Someone else changed this meanwhile. Reload to see it; what you typed is still here.',
    gateNotOpen: 'The gate is not open. Override needs a reason.',
    waitsForOtherSide: 'This side waits for the other one.',
    heldTag: 'A caution holds this. Nothing passes it, an override included.',
    stageMoved: 'This side is at another stage by now. Reload.',
    atFirstStage: 'This is the first stage.',
    atLastStage: 'The skill is owned: there is no next stage.',
    everythingHeld:
      'Nothing may be trained yet: see the cautions. For a health question, ask a licensed clinician.',
    planCheckFailed: 'The session breaks a rule and was not stored.',
    planHeld: 'A caution was added since this session was made. Make the next session again.',
    sessionOver: 'This session has been run and logged.',
    ownerExists: 'This studio has an owner already. Sign in.',
    notOnLadder: 'Not on a ladder yet.',
    alreadyOnLadder: 'Already on this ladder.',
    noSuchHold: 'This hold is gone already.',
    reviewTooEarly: 'Two pain-free sessions come first.',
    noDevice: 'No device is connected to this server.',
    demoOnly: 'Only the demo can do this.',
    nothingToRead: 'Choose at least one measure.',
    missingColumn: 'A column is missing: measure, warmth, taken_at, and the student.',
    unknownColumn: 'A column is not known. See the list of columns.',
    brokenCsv: 'The file breaks off in its middle, or a quote is not closed.',
    notUtf8: 'The file is not UTF-8 text.',
    tooManyLines: 'At most 20,000 lines in a file.',
    importHasProblems: 'Some lines have problems: nothing was taken.',
    landmarksCoincide: 'Two landmarks lie on one spot.',
    horizonTooShort: 'Put the two ends of the horizon farther apart.',
    outsidePicture: 'A landmark lies outside the picture.',
    unreadable: 'The server could not read this.',
  };
  return words[code] ?? 'Something went wrong. What you typed is still here; try again.';
}

/** The problem of one field, worded; nothing when the field is fine. */
export function fieldText(refusal: Refusal | undefined, field: string): string | undefined {
  const found = refusal?.problems.find((p) => p.field === field || p.field.endsWith(`.${field}`));
  return found && problemText(found);
}
