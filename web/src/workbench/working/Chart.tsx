import type { Display, ResultChart } from '@yperkine/core'
import {
  Chart as ChartJs,
  Legend,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from 'chart.js'
import { useMemo } from 'react'
import { Scatter } from 'react-chartjs-2'
import { useStudy } from '../store'

ChartJs.register(LinearScale, LogarithmicScale, PointElement, LineElement, Tooltip, Legend)

const inks = ['kelp', 'slate', 'plum', 'moss', 'umber', 'rust']
const shapes = ['circle', 'rect', 'triangle', 'rectRot', 'star', 'crossRot'] as const

/** The colours of a look, read from the page that shows it. */
function coloursOf(look: Display['look']) {
  const probe = document.querySelector(`:root[data-look='${look}']`) ?? document.documentElement
  const style = getComputedStyle(probe)
  return (name: string) => style.getPropertyValue(`--color-${name}`).trim()
}

/** A chart of points joined by lines; each series has a shape of its own beside its colour. */
export default function Chart({ chart }: { chart: ResultChart }) {
  const look = useStudy((s) => s.display.look)
  const { data, options } = useMemo(() => {
    const colour = coloursOf(look)
    const type = chart.logarithmic ? 'logarithmic' : 'linear'
    const scale = (text: string) => ({
      type: type as 'linear',
      title: { display: true, text, color: colour('quiet') },
      grid: { color: colour('grid') },
      ticks: {
        color: colour('quiet'),
        maxTicksLimit: 6,
        callback: (value: string | number) =>
          chart.logarithmic
            ? powerOfTen(Number(value))
            : String(Number(Number(value).toPrecision(6))),
      },
    })
    return {
      data: {
        datasets: chart.series.map(({ name, points }, i) => ({
          label: name,
          data: points.map(([x, y]) => ({ x, y })),
          showLine: true,
          borderColor: colour(inks[i % inks.length]!),
          backgroundColor: colour(inks[i % inks.length]!),
          borderWidth: 1.5,
          pointRadius: 3,
          pointStyle: shapes[i % shapes.length]!,
        })),
      },
      options: {
        animation: false as const,
        responsive: true,
        maintainAspectRatio: false,
        scales: { x: scale(chart.xLabel), y: scale(chart.yLabel) },
        plugins: {
          legend: { labels: { color: colour('ink'), usePointStyle: true, boxHeight: 6 } },
        },
      },
    }
  }, [chart, look])
  return (
    <figure className="mt-1" aria-label={chart.name}>
      <div className="h-52">
        <Scatter data={data} options={options} aria-hidden />
      </div>
      <figcaption className="text-[calc(13px*var(--type))] text-quiet">{chart.summary}</figcaption>
    </figure>
  )
}

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹'
/** Labels stand at whole powers of ten alone. */
function powerOfTen(value: number): string {
  const power = Math.round(Math.log10(value))
  if (Math.abs(value / 10 ** power - 1) > 1e-9) return ''
  return `10${[...String(power)].map((c) => (c === '-' ? '⁻' : raised[Number(c)])).join('')}`
}
