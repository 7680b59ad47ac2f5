import { counted } from '@core/text/counted';
import { Chart, LinearScale, Tooltip } from 'chart.js';
import { TreemapController, TreemapElement } from 'chartjs-chart-treemap';
import { codeColour } from '@core/model/palette';
import { hexOf } from '@core/model/colour-hex';
import { chartFont, FINE, tokensOf, tooltipLook } from './chart-look';

Chart.register(LinearScale, Tooltip, TreemapController, TreemapElement);

/** One area: whose it is, in which group it lies, and how much it counts. */
export interface Area {
  readonly id: string;
  readonly name: string;
  readonly category: string;
  /** An entry of the code palette. */
  readonly colour: number;
  readonly count: number;
  /** The count in words, where it is not of passages. */
  readonly said?: string;
}

/** Draws areas within groups with the design's tokens. @param style of an element in the chart's place */
export function drawAreas(
  canvas: HTMLCanvasElement,
  style: CSSStyleDeclaration,
  areas: readonly Area[],
  dark: boolean,
  picked: (id: string) => void,
): Chart {
  const token = tokensOf(style);
  const font = chartFont(token);
  const byId = new Map(areas.map((area) => [area.id, area]));
  const areaOf = (raw: unknown): Area | undefined => {
    const { g, l } = (raw ?? {}) as { g?: string; l?: number };
    return l === 1 ? byId.get(g ?? '') : undefined;
  };
  return new Chart(canvas, {
    type: 'treemap',
    data: {
      datasets: [
        {
          label: 'passages',
          data: [],
          tree: areas.map((one) => ({ ...one })),
          key: 'count',
          groups: ['category', 'id'],
          spacing: 1.5,
          borderWidth: 0,
          backgroundColor: (context) => {
            const area = areaOf(context.raw);
            // most of the way to the surface, so that the words stay readable
            return area ? `${hexOf(codeColour(area.colour, dark ? 'dark' : 'light'))}${dark ? '55' : '40'}` : token('--ground');
          },
          captions: { display: true, color: token('--ink-second'), font: { ...font, weight: 'bold' }, align: 'left', padding: 4 },
          labels: {
            display: true,
            color: token('--ink'),
            hoverColor: token('--ink'),
            font,
            align: 'left',
            position: 'top',
            overflow: 'cut',
            formatter: (context) => {
              const area = areaOf(context.raw);
              return area ? [area.name, area.count.toLocaleString()] : '';
            },
          },
        },
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      devicePixelRatio: FINE,
      onClick: (_event, hits, chart) => {
        const hit = hits.at(-1);
        const area = hit && areaOf((chart.data.datasets[0]!.data as unknown[])[hit.index]);
        if (area) picked(area.id);
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          ...tooltipLook(token),
          callbacks: {
            title: () => '',
            label: (item) => {
              const area = areaOf(item.raw);
              return area ? `${area.name}: ${area.said ?? counted(area.count, 'passage')}` : '';
            },
          },
        },
      },
    },
  });
}
