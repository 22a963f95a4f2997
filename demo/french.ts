/** The demo's listings that somebody wrote in French too, by title. The others stand in English on French pages, as on a real site. */
import type { Translation } from '@/core/listing/content';

const words = (title: string, summary: string, text = '', shortTitle = ''): Translation => ({ title, shortTitle, summary, text });

export const FRENCH_WORDS: ReadonlyMap<string, Translation> = new Map([
  [
    'Harbour Choir',
    words(
      'Le chœur du port',
      'Quarante voix, sans audition. Le premier mois, les nouvelles voix chantent à côté d’une ancienne.',
      '<p>Nous chantons des chants de mer, des psaumes et tout ce que les basses apportent. Les partitions sont prêtées; le thé est à 20 h 30.</p><p>Le chœur se repose la dernière semaine de décembre et pendant le hareng, en août.</p>',
      'Chœur du port',
    ),
  ],
  ['Mending Bench', words('L’établi de réparation', 'Apportez ce qui est déchiré, fêlé ou desserré; nous réparons ensemble.')],
  ['Low-tide Walk', words('Marche à marée basse', 'Quatre kilomètres sur l’estran, bottes aux pieds, et retour avant la mer.')],
  ['Quay Market', words('Marché du quai', 'Pain, poissons, œufs et ce que les jardins donnent cette semaine.')],
  ['Night-sky Watch', words('Nuit des étoiles', 'Des lunettes pour tout le monde; couvrez-vous bien.')],
  [
    'Ceilidh at the Net Loft',
    words('Ceilidh au grenier à filets', 'Des violons de trois îles; le dernier traversier attend jusqu’à 23 h 40.', '', 'Ceilidh'),
  ],
  ['Morning Swim', words('Baignade du matin', 'À la cale, par tous les temps sauf l’orage.')],
  ['Tool Library', words('Outilthèque', 'Empruntez un rabot, rendez-le affûté.')],
  [
    'Boat-building Weekend',
    words('Fin de semaine de construction de bateaux', 'Trois jours, une coque, et personne ne repart sans copeaux.'),
  ],
]);
