/**
 * What each figure is to be, on a quiet machine of two cores: at most so much, or at least. A new figure needs its row:
 * what has no aim is measured for nobody.
 */
export type Aim = number | { readonly least: number }

export const AIMS: Readonly<Record<string, Aim>> = {
  'head.build.ms': 8000,
  'plan.full.ms': 250,
  'plan.full.head.ms': 350,
  'plan.change.ms': 80,
  'plan.front.points': 10,
  'plan.presses.face2': 28,
  'screening.ms': 0.1,
  'order.gap_vs_exact.ratio': 1.01,
  'order.40.gap_best_known.ratio': 1.02,
  'chair.replay_10k.ms': 100,
  'replan.ms': 200,
  'field.first.ms': 500,
  'field.ground.ms': 1000,
  'field.worker.mb': 60,
  'field.resolve.ms': 16,
  'field.resolve_p95.ms': 33,
  'field.resolve_with_trust.ms': 33,
  'field.error.median_deg': 8,
  'field.error.p95_deg': 30,
  'field.error_with_wrong_guesses.median_deg': 9,
  'field.error_vs_kernel.ratio': 0.95,
  'field.error_vs_nearest.ratio': 0.8,
  'field.whorl_offset.mm': 18,
  'field.whorl_missed': 0.05,
  'grain.test.answers': 14,
  'grain.test.error_deg': 20,
  'map.import.ms': 50,
  'learn.client.ms': 50,
  'forecast.coverage80.ratio': { least: 0.75 },
  'forecast.brier_vs_last.ratio': 0.8,
  'forecast.brier_vs_prior.ratio': 1,
  'learn.studio.ms': 2000,
  'import.10k_lines.ms': 4000,
  'report.pdf.ms': 2000,
  'web.first_load.kb_gzip': 200,
  'server.start.ms': 2000,
  'web.ready.ms': 1500,
  'read.stroke_frame.ms': 250,
  'read.stroke_frame_median.ms': 17,
  'server.rss.mb': 250,
  'api.p50.ms': 10,
  'api.p99.ms': 30,
  'today.200_clients.ms': 80,
  'clients.200.ms': 50,
  'size.today.ms': 120,
  'size.today.kb': 200,
  'size.find.ms': 60,
  'size.list.ms': 60,
  'size.client.ms': 20,
  'size.studio.ms': 2500,
  'size.report.ms': 2500,
  'size.import_5000.ms': 4000,
  'size.chair_wait.ms': 60,
  'size.peak_rss.mb': 500,
  'chair.event.p50_ms': 8,
  'chair.event.p99_ms': 250,
  'chair.follow.p95_ms': 40,
  'chair.soak.events': { least: 1000 },
  'chair.soak.lost_events': 0,
  'chair.soak.differences': 0,
  'chair.kills': { least: 40 },
  'chair.kills.acknowledged': { least: 40 },
  'chair.kills.lost_events': 0,
  'chair.kills.differences': 0,
}

/** Machines differ and are seldom quiet. */
const ROOM = 1.5

/** Whether a figure is farther from its aim than a busy machine explains. */
export const beyond = (value: number, aim: Aim): boolean =>
  typeof aim === 'number' ? value > aim * ROOM : value < aim.least / ROOM
