import type { GistWords } from '../gists.ts';
import { NUMBER_WORD } from './figures.ts';

const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

export const ENGLISH_GISTS: GistWords = {
  leads:
    /^(?:(?:and|but|so|or|now|well|then|also|still|yet|anyway|okay|of course|in fact|after all|for example|for instance|that is|as i said|as always|you see(?=,)|i think|i mean|to be honest|by the way|in other words)(?:,\s*|\s+))+/i,
  clauseStarts: list(
    'and but or so because if when whenever while until till before after since unless although though whereas where which who whose that as than'
  ),
  heads: list(
    'and but or so because that which who whose than as also then just even really very still yet too'
  ),
  tails: list(
    'and but or so because if when while until before after that which who than as of to in on at by for from with into onto over under the a an its their your our my his her this these those is are was were be been has have had do does did will would can could should may might must not very more most such some any each every there'
  ),
  doers: list('i we you they he she it'),
  denials: list(
    "not never no none nobody nothing neither nor cannot can't don't doesn't didn't won't isn't aren't"
  ),
  numbers: NUMBER_WORD,
  smallNumbers: list('one two three four five six seven eight nine ten half'),
  measures:
    /^(?:(?:milli|centi|kilo)?met(?:re|er)s?|mm|cm|m|km|inch(?:es)?|feet|foot|yards?|miles?|grams?|kilos?|kilograms?|g|kg|lit(?:re|er)s?|millilit(?:re|er)s?|ml|l|seconds?|minutes?|hours?|days?|weeks?|months?|years?|degrees?|percent|%|per|times|euros?|dollars?|pounds?|watts?|volts?|ends|picks|threads|turns|rows|pages|words|people)$/,
  terms: [
    /^(?:An?\s+|The\s+(?:word|term)\s+)?((?:[\p{L}'’-]+\s){0,3}[\p{L}'’-]+)\s+(?:means(?:\s+that)?|is\s+(?:called|known\s+as)|refers\s+to|stands\s+for)\s([^.!?]{8,})[.!]?$/u,
    /^An?\s+((?:[\p{L}'’-]+\s){0,2}[\p{L}'’-]+)\s+is\s+((?:an?|the|any|what|where|when)\s[^.!?]{8,})[.!]?$/u,
    /^(\p{Lu}[\p{L}-]+ing)\s+is\s((?!not\b|easy\b|hard\b|so\b)[^.!?]{8,})[.!]?$/u
  ],
  before: /\b(?:before|unwashed|raw|at first|to begin with|start)\b/i,
  after: /\b(?:after|finished|washed|in the end|done|result)\b/i
};
