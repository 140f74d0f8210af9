/** Nouns and the like that say nothing as a title. */
export const EMPTY_NOUNS = new Set(
  'thing things way ways bit lot kind sort time times one ones part step video today question minute minutes moment people everybody someone something anything point end side sides day days person guy guys stuff idea rest same half quarter couple pair pound pounds quid euro euros pence penny percent year years month months week weeks hour hours second seconds morning evening night yesterday tomorrow inch inches centimetre centimetres millimetre millimetres gram grams litre litres name hello thank thanks sorry'.split(
    ' '
  )
);
export const FILLER_VERBS = new Set(
  'be is are was were have has had do does did say says said know think mean want like go going get got let come see look need make sure show tell talk call called start begin want wanna gonna try happen keep use'.split(
    ' '
  )
);
export const POSSESSIVE = new Set('your my our his her their its'.split(' '));
export const PARTICLES = new Set(
  'up out off down in on back away over together apart through'.split(' ')
);
/** After these a verb tells what to do. */
export const BEFORE_ADVICE = new Set(
  "to you we i can should must will could let's and then now just always never next so first please don't by before after when".split(
    ' '
  )
);
export const IRREGULAR_PAST = new Set(
  'took left wound gave made got found had told kept held went came began broke ran lost bought thought felt fell stood sat wove spun threw wrote drew grew knew lay'.split(
    ' '
  )
);
