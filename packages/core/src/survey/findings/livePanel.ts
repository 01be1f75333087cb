import { listWords } from '../words';
import { Finder } from './finding';

/** In which panel typing has an effect: the commonest lost hour is a record saved where nothing is delegated to. */
export const livePanel: Finder = ({ panels }) => {
  const live = panels.filter((panel) => panel.live).map((panel) => panel.host);
  const idle = panels.filter((panel) => !panel.live && panel.serves).map((panel) => panel.host);
  if (live.length === 0 && idle.length === 0) return [];
  const does = live.length > 0 ? `Records typed at ${listWords(live)} take effect` : 'No DNS host that you have entered is delegated to';
  const doesNot = idle.length > 0 ? `; those at ${listWords(idle)} do not yet, though the zone stands there` : '';
  return [
    { weight: 'note', code: 'live-panel', text: `${does}${doesNot}.` },
    ...(live.length > 1
      ? [
          {
            weight: 'look' as const,
            code: 'two-panels',
            text: `The parent delegates to ${listWords(live)} at once: a record has to be typed at each, or answers differ.`,
          },
        ]
      : []),
  ];
};
