import type { PollWords } from '../pollWords.ts';

export const ENGLISH_POLLS: PollWords = {
  tryFirst: 'Which of these would you try first?',
  hearMore: 'Which part would you like to hear more about?',
  which: (a, b) => `${a} or ${b}: which is it for you?`,
  answers: ['Yes', 'No', 'It depends'],
  choice:
    /\b(?:either|between|whether|choose|prefer|take|use) (?:an? |the )?((?:\p{L}+ ){0,1}\p{L}{3,}),? or (?:an? |the )?((?:\p{L}+ ){0,1}?\p{L}{3,})(?=[,.;:?!]|$| (?:for|in|on|at|with|from|to)\b)/gu,
  before: /^(?:an?|the|of|in|on|with|for|by|to|as|is|are|either|its|your|our|no)\s+/i,
  yesNo:
    /^(?:do|does|did|have|has|are|is|would|will|can|could|should) (?:you|your|we|it|a|an|the)\b/i
};
