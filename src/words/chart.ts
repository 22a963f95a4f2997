/** The words of the movable chart, which readers meet: in every language that their pages come in. */
import type { Language } from '@/core/phrase/language';
import en from './compiled/chart.en.js';
import fr from './compiled/chart.fr.js';

export type ChartWords = typeof en;

export const CHART_WORDS: Record<Language, ChartWords> = { en, fr };
