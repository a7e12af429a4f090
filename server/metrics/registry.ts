import { collectDefaultMetrics, Histogram, Registry, type OpenMetricsContentType } from 'prom-client'

/** What is counted in this process, in the text format of OpenMetrics 1.0. */
export const registry = new Registry<OpenMetricsContentType>()
registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE)

collectDefaultMetrics({ register: registry, prefix: 'plauder_' })

const answered = new Histogram({
  name: 'plauder_http_request_seconds',
  help: 'How long answers took, by route and status.',
  labelNames: ['method', 'route', 'status'],
  buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
  registers: [registry],
})

/** @param route as it is registered, never an address with ids: each value is a series of its own */
export function countAnswer(method: string, route: string, status: number, seconds: number): void {
  answered.observe({ method, route, status: String(status) }, seconds)
}
