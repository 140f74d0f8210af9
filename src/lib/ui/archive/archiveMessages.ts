import type { ArchiveFault, ArchiveFinding } from '$lib/core/archive/problem.ts';
import type { ArchiveTableName } from '$lib/core/archive/tables.ts';
import { plural, type ProblemText } from '../messages.ts';

/** What the rows of a table are to people. */
export const tableLabels: Record<ArchiveTableName, string> = {
  places: 'Channels and blogs',
  networks: 'Networks',
  playlists: 'Playlists',
  items: 'Videos and posts',
  bodies: 'Texts of posts',
  details: 'Captions and chapters',
  ties: 'Pairs you made',
  decisions: 'Set aside or accepted',
  baselines: 'How twins were in step',
  makings: 'What posts were made from',
  makingTexts: 'Posts as generated',
  comments: 'Comments',
  listPages: 'List pages',
  glossary: 'Glossary',
  linkMemories: 'Decisions on links',
  drafts: 'Drafts on the desk',
  work: 'Edits on the desk',
  templates: 'Layouts of blogs',
  layouts: 'Saved layouts',
  narrations: 'Scripts of videos',
  renders: 'Finished videos',
  voices: 'Voices',
  library: 'Picture library',
  reach: 'Reach',
  visitHours: 'Hours of visits',
  updates: 'Updates',
  lanes: 'Lanes',
  records: 'Items of lanes',
  runs: 'Runs of lanes',
  outbox: 'Deliveries',
  transfers: 'Uploads',
  steps: 'Steps of deliveries',
  journal: 'Journal',
  speech: 'Recorded sentences',
  samples: 'Sound of recorded sentences',
  media: 'Pictures, sounds and clips',
  settings: 'Settings',
  files: 'Video and voice files'
};

const FAULTS: Record<ArchiveFault['kind'], ProblemText> = {
  'not-an-archive': {
    what: 'This file is not a Swift Twin archive.',
    todo: 'Choose a ZIP file that was made with “Make an archive”. Nothing was changed.'
  },
  'cut-off': {
    what: 'The end of this file is missing, or it is damaged.',
    todo: 'The download may have been cut off. Copy or download it again. Nothing was changed.'
  },
  'manifest-damaged': {
    what: 'The list of what is in this archive is damaged.',
    todo: 'Without it nothing in it can be trusted. Use another copy. Nothing was changed.'
  },
  'later-version': {
    what: 'This archive was made by a later version of Swift Twin.',
    todo: 'Update Swift Twin, then import it. Nothing was changed.'
  },
  'tables-damaged': {
    what: 'This archive is of an earlier version, and its tables are not as that version wrote them.',
    todo: 'It may have been edited. Use another copy. Nothing was changed.'
  }
};
export const faultMessage = ({ kind }: ArchiveFault): ProblemText => FAULTS[kind];

export function findingMessage(finding: ArchiveFinding): string {
  switch (finding.kind) {
    case 'missing':
      return `${finding.file} is missing.`;
    case 'damaged':
      return `${finding.file} is damaged.`;
    case 'unlisted':
      return `${finding.file} was added later.`;
    case 'bad-rows':
      return `${finding.file}: ${plural(finding.rows, 'row', 'rows')} cannot be read, the first in line ${finding.line}.`;
  }
}
