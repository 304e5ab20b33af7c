/**
 * The shape of the data, step by step. Columns of plain data are declared JSON: Sequelize reads a column by its declared type.
 * Never change a step that has shipped: add one.
 */
export interface Migration {
  readonly name: string
  readonly up: readonly string[]
}

const ofVisit = (row: string) => `(SELECT clientId FROM visits WHERE id = ${row}.visitId)`
/** Tables that a client's standing is made of, whose client a row is of, and which marks it changes. */
const MARKING: readonly (readonly [table: string, of: (row: string) => string, marks: string])[] = [
  ['visits', (row) => `${row}.clientId`, 'mark = mark + 1, sumsMark = sumsMark + 1'],
  ['skin_answers', ofVisit, 'mark = mark + 1, sumsMark = sumsMark + 1'],
  ['hair_readings', (row) => `${row}.clientId`, 'mark = mark + 1'],
  ['decisions', ofVisit, 'mark = mark + 1'],
]

/** What all jobs of a visit hold of a kind, by zone; null while none holds any. */
const byZone = (column: string, all: string) =>
  // Of one job as it stands: SQLite rounds what it puts together anew.
  `CASE WHEN json_array_length(visits.jobs) = 1 THEN visits.jobs ->> '$[0].${column}'
    WHEN EXISTS (SELECT 1 FROM json_each(visits.jobs) j WHERE j.value ->> '$.${column}' IS NOT NULL) THEN (
    SELECT json_group_object(zone, held) FROM (
      SELECT z.key AS zone, ${all}(z.value) AS held
      FROM json_each(visits.jobs) j, json_each(j.value, '$.${column}') z WHERE z.key IS NOT NULL GROUP BY z.key)) END`

/** What of the jobs of a visit is read as that of the visit. */
const TOGETHER = `service = jobs ->> '$[0].service', loads = ${byZone('loads', 'SUM')}, leftMm = ${byZone('leftMm', 'MIN')},
  choices = CASE WHEN json_array_length(visits.jobs) = 1 THEN visits.jobs ->> '$[0].choices' ELSE (SELECT json_set(j.value -> '$.choices', '$.zones', (
      SELECT json_group_object(z.key, json(z.value)) FROM json_each(visits.jobs) o, json_each(o.value, '$.choices.zones') z
      WHERE z.key IS NOT NULL))
    FROM json_each(visits.jobs) j WHERE j.value ->> '$.choices' IS NOT NULL LIMIT 1) END`

const KEEP_JOBS = `INSERT OR IGNORE INTO visit_jobs (clientId, service, method, endedAtMs, visitId)
  SELECT visits.clientId, j.value ->> '$.service', j.value ->> '$.method', visits.endedAtMs, visits.id
  FROM visits, json_each(visits.jobs) j WHERE visits.state = 'finished' AND visits.endedAtMs IS NOT NULL`

/** An appointment for each visit that had an hour or was begun, with the visit's own id. */
export const VISITS_INTO_BOOK = `INSERT INTO appointments (id, clientId, visitId, workerId, startMs, minutes, state, madeAtMs)
  SELECT id, clientId, id, workerId, COALESCE(startedAtMs, slotAtMs) / 300000 * 300000,
    CASE WHEN endedAtMs > startedAtMs THEN MIN(480, ((endedAtMs - startedAtMs) / 300000 + 1) * 5) ELSE 45 END,
    CASE state WHEN 'open' THEN 'booked' ELSE 'arrived' END, createdAtMs
  FROM visits WHERE COALESCE(startedAtMs, slotAtMs) IS NOT NULL`

export const MIGRATIONS: readonly Migration[] = [
  {
    name: '0001-first-shape',
    up: [
      `CREATE TABLE workers (
        id TEXT PRIMARY KEY, name TEXT NOT NULL, role TEXT NOT NULL,
        hand TEXT NOT NULL CHECK (hand IN ('right', 'left')))`,
      `CREATE TABLE settings (key TEXT PRIMARY KEY, value JSON NOT NULL)`,
      `CREATE TABLE clients (
        id TEXT PRIMARY KEY, name TEXT NOT NULL, calledName TEXT NOT NULL, pronouns TEXT NOT NULL,
        occupation TEXT NOT NULL, service TEXT NOT NULL, skin JSON NOT NULL, createdAtMs INTEGER NOT NULL)`,
      `CREATE TABLE visits (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        workerId TEXT NOT NULL REFERENCES workers(id),
        service TEXT NOT NULL,
        state TEXT NOT NULL CHECK (state IN ('open', 'running', 'finished')),
        slotAtMs INTEGER, createdAtMs INTEGER NOT NULL, startedAtMs INTEGER, endedAtMs INTEGER,
        routine TEXT NOT NULL DEFAULT '',
        asked JSON NOT NULL, loads JSON, leftMm JSON,
        worstRedness INTEGER, bumps INTEGER)`,
      // Whole in the index: finding everybody's last visit of each service reads no visit.
      `CREATE INDEX visits_by_kind ON visits (state, clientId, service, endedAtMs)`,
      `CREATE INDEX visits_by_client ON visits (clientId, createdAtMs)`,
      `CREATE INDEX visits_by_end ON visits (endedAtMs, clientId, service)`,
      `CREATE UNIQUE INDEX one_unfinished_visit ON visits (clientId) WHERE state <> 'finished'`,
      // Apart from the visits, which are read often: a plan is large and read one at a time.
      `CREATE TABLE plans (
        visitId TEXT PRIMARY KEY REFERENCES visits(id) ON DELETE CASCADE,
        madeAtMs INTEGER NOT NULL, plan JSON NOT NULL)`,
      `CREATE TABLE readings (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        zoneId TEXT NOT NULL, at JSON NOT NULL, method TEXT NOT NULL, atMs INTEGER NOT NULL)`,
      `CREATE INDEX readings_by_client ON readings (clientId)`,
      `CREATE TABLE chair_events (
        id TEXT PRIMARY KEY,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        seq INTEGER NOT NULL, kind TEXT NOT NULL, atMs INTEGER NOT NULL, stepId TEXT, reason TEXT,
        UNIQUE (visitId, seq))`,
      `CREATE TABLE skin_answers (
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        moment TEXT NOT NULL, atMs INTEGER NOT NULL, zones JSON NOT NULL,
        PRIMARY KEY (visitId, moment)) WITHOUT ROWID`,
      `CREATE TABLE hair_readings (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        kind TEXT NOT NULL, days REAL NOT NULL, zoneId TEXT, lengthMm REAL, leftMm REAL NOT NULL,
        atMs INTEGER NOT NULL)`,
      `CREATE INDEX hair_by_client ON hair_readings (clientId)`,
    ],
  },
  {
    name: '0002-maps-by-visit',
    up: [
      // What a guided test was answered.
      `ALTER TABLE readings ADD COLUMN answers JSON`,
      // A reading of an earlier visit is never erased from that visit's map: from this moment it no longer counts.
      `ALTER TABLE readings ADD COLUMN goneAtMs INTEGER`,
      // Keep-lines, kept zones, kinds of hair, strays.
      `ALTER TABLE visits ADD COLUMN notes JSON NOT NULL
        DEFAULT '{"lines":[],"keptZones":[],"hair":{},"strays":[]}'`,
    ],
  },
  {
    name: '0003-schools-and-practice',
    up: [
      // Whether a worker may hold a bare blade.
      `ALTER TABLE workers ADD COLUMN level TEXT NOT NULL DEFAULT 'practised'
        CHECK (level IN ('practised', 'learning'))`,
      // Schools that differ for one client.
      `ALTER TABLE clients ADD COLUMN schools JSON NOT NULL DEFAULT '{}'`,
    ],
  },
  {
    name: '0004-chair-and-care',
    up: [
      // Events are numbered by the screen that made them; the place in the service is the server's.
      `ALTER TABLE chair_events ADD COLUMN screen TEXT NOT NULL DEFAULT ''`,
      `ALTER TABLE chair_events ADD COLUMN n INTEGER NOT NULL DEFAULT 0`,
      `ALTER TABLE chair_events ADD COLUMN detail JSON`,
      `UPDATE chair_events SET n = seq`,
      `CREATE UNIQUE INDEX events_by_screen ON chair_events (visitId, screen, n)`,
      `ALTER TABLE visits ADD COLUMN products JSON NOT NULL DEFAULT '[]'`,
      // Blades opened, changed and binned outlive the client that they were for.
      `CREATE TABLE kit_events (
        id TEXT PRIMARY KEY,
        visitId TEXT REFERENCES visits(id) ON DELETE SET NULL,
        atMs INTEGER NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('opened', 'changed', 'binned')),
        bladeId TEXT NOT NULL, strokes INTEGER NOT NULL, why TEXT NOT NULL)`,
      `CREATE INDEX kit_events_by_time ON kit_events (atMs)`,
      `CREATE INDEX kit_events_by_visit ON kit_events (visitId)`,
      // The pictures themselves lie beside the database.
      `CREATE TABLE photos (
        id TEXT PRIMARY KEY,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        atMs INTEGER NOT NULL, width INTEGER NOT NULL, height INTEGER NOT NULL)`,
      `CREATE INDEX photos_by_visit ON photos (visitId)`,
      `CREATE TABLE messages (
        id TEXT PRIMARY KEY,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        subject TEXT NOT NULL, text TEXT NOT NULL, dueAtMs INTEGER NOT NULL,
        state TEXT NOT NULL CHECK (state IN ('waiting', 'taken-back')))`,
      `CREATE INDEX messages_by_visit ON messages (visitId)`,
      `CREATE INDEX messages_by_due ON messages (dueAtMs)`,
    ],
  },
  {
    name: '0005-return',
    up: [
      // What was tapped, how it felt, and who said so.
      `ALTER TABLE skin_answers ADD COLUMN spots JSON NOT NULL DEFAULT '[]'`,
      `ALTER TABLE skin_answers ADD COLUMN feeling JSON NOT NULL DEFAULT '{}'`,
      `ALTER TABLE skin_answers ADD COLUMN source TEXT NOT NULL DEFAULT 'seen'
        CHECK (source IN ('seen', 'phone', 'client'))`,
      `ALTER TABLE hair_readings ADD COLUMN method TEXT`,
      // What was done, zone by zone; null for visits kept before.
      `ALTER TABLE visits ADD COLUMN choices JSON`,
      // The window told for the next visit when this one ended.
      `ALTER TABLE visits ADD COLUMN dueFromMs INTEGER`,
      `ALTER TABLE visits ADD COLUMN dueToMs INTEGER`,
      // Grades and loads of answered visits, summed: what the studio learns from without reading every answer.
      `ALTER TABLE visits ADD COLUMN gradeSum REAL`,
      `ALTER TABLE visits ADD COLUMN loadSum REAL`,
      `UPDATE visits SET
        loadSum = (SELECT SUM(value) FROM json_each(visits.loads)),
        gradeSum = (SELECT COALESCE(SUM(grade), 0) FROM
          (SELECT z.value ->> '$.zoneId' AS zone, MAX(z.value ->> '$.redness') AS grade
           FROM skin_answers a, json_each(a.zones) z
           WHERE a.visitId = visits.id AND a.atMs <= visits.endedAtMs + 216000000 GROUP BY zone)
          WHERE zone IN (SELECT key FROM json_each(visits.loads)))
       WHERE state = 'finished' AND loads IS NOT NULL AND worstRedness IS NOT NULL`,
      `CREATE INDEX visits_sums ON visits (clientId, gradeSum, loadSum) WHERE loadSum IS NOT NULL`,
      `ALTER TABLE clients ADD COLUMN phone TEXT NOT NULL DEFAULT ''`,
      `ALTER TABLE clients ADD COLUMN email TEXT NOT NULL DEFAULT ''`,
      `ALTER TABLE clients ADD COLUMN note TEXT NOT NULL DEFAULT ''`,
      // Events of the client that services are laid out for.
      `ALTER TABLE clients ADD COLUMN events JSON NOT NULL DEFAULT '[]'`,
      `CREATE TABLE imports (
        id TEXT PRIMARY KEY, atMs INTEGER NOT NULL, source TEXT NOT NULL, clients INTEGER NOT NULL,
        undoneAtMs INTEGER)`,
      `ALTER TABLE clients ADD COLUMN importId TEXT REFERENCES imports(id) ON DELETE SET NULL`,
      `CREATE INDEX clients_by_import ON clients (importId)`,
      // Only the digest of a link's token is kept: who reads the file cannot answer for a client.
      `CREATE TABLE answer_links (
        digest TEXT PRIMARY KEY,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        createdAtMs INTEGER NOT NULL, expiresAtMs INTEGER NOT NULL, takenBackAtMs INTEGER)`,
      `CREATE INDEX links_by_visit ON answer_links (visitId)`,
    ],
  },
  {
    name: '0006-one-gate',
    up: [
      // What happened to the skin at the chair: redness, nicks, what was left out.
      `ALTER TABLE visits ADD COLUMN atChair JSON`,
      `UPDATE visits SET atChair = json_object(
        'redness', json((SELECT COALESCE(json_group_object(zone, grade), '{}') FROM
          (SELECT detail ->> '$.zoneId' AS zone, MAX(detail ->> '$.grade') AS grade FROM chair_events
           WHERE visitId = visits.id AND kind = 'redness' AND detail ->> '$.zoneId' IS NOT NULL GROUP BY zone))),
        'leftOut', json('{}'),
        'nicks', json((SELECT COALESCE(json_group_object(zone, n), '{}') FROM
          (SELECT COALESCE(detail ->> '$.zoneId', '') AS zone, COUNT(*) AS n FROM chair_events
           WHERE visitId = visits.id AND kind = 'nick' GROUP BY zone))))
       WHERE state = 'finished'`,
      // When an answer was told, beside the time that it speaks of.
      `ALTER TABLE skin_answers ADD COLUMN toldAtMs INTEGER`,
      `UPDATE skin_answers SET toldAtMs = atMs`,
      // What is shown of a visit is the worst that anybody saw, however late; the first look says nothing of it.
      `UPDATE visits SET worstRedness =
        (SELECT MAX(grade) FROM
          (SELECT 0 AS grade FROM skin_answers a
             WHERE a.visitId = visits.id AND a.atMs >= visits.endedAtMs + 21600000
           UNION ALL
           SELECT z.value ->> '$.redness' FROM skin_answers a, json_each(a.zones) z
             WHERE a.visitId = visits.id AND a.atMs >= visits.endedAtMs + 21600000
           UNION ALL
           SELECT value FROM json_each(visits.atChair, '$.redness')))
       WHERE state = 'finished'`,
      // Visits that were taken badly, as severity was first drawn: the gate looks at them until the skin was seen calm.
      `ALTER TABLE visits ADD COLUMN severe INTEGER NOT NULL DEFAULT 0`,
      `UPDATE visits SET severe = 1 WHERE state = 'finished' AND (
         EXISTS (SELECT 1 FROM json_each(visits.atChair, '$.redness') WHERE value >= 4)
         OR EXISTS (SELECT 1 FROM skin_answers a WHERE a.visitId = visits.id AND (
           COALESCE(a.feeling ->> '$.stinging', 0) >= 7
           OR (SELECT MAX(z.value ->> '$.redness') >= 4
                 OR SUM(COALESCE(z.value ->> '$.pustules', 0)) > 0
                 OR SUM(z.value ->> '$.bumps') >= 12 FROM json_each(a.zones) z))))`,
      `CREATE INDEX visits_severe ON visits (clientId) WHERE severe = 1`,
      // A worker's word on what stands in the way: never erased, only taken back.
      `CREATE TABLE decisions (
        id TEXT PRIMARY KEY,
        visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        finding TEXT NOT NULL, workerId TEXT NOT NULL, workerName TEXT NOT NULL,
        reason TEXT NOT NULL, atMs INTEGER NOT NULL, takenBackAtMs INTEGER)`,
      `CREATE INDEX decisions_by_visit ON decisions (visitId)`,
    ],
  },
  {
    name: '0007-jobs-and-kinds',
    up: [
      // A visit holds jobs, each with what it left. A visit kept before is one job: a whole service with a blade.
      `ALTER TABLE visits ADD COLUMN jobs JSON NOT NULL DEFAULT '[]'`,
      `UPDATE visits SET jobs = json_array(json_object(
        'id', id, 'service', service, 'zones', NULL, 'method', 'blade',
        'loads', json(loads), 'leftMm', json(leftMm), 'choices', json(choices),
        'dueFromMs', dueFromMs, 'dueToMs', dueToMs))`,
      `DROP INDEX visits_by_kind`,
      `DROP INDEX visits_by_end`,
      ...['service', 'loads', 'leftMm', 'choices', 'dueFromMs', 'dueToMs'].map(
        (column) => `ALTER TABLE visits DROP COLUMN ${column}`,
      ),
      // What lists and learning ask of a visit's first job is read off its jobs: it stands there once. The service is
      // also kept beside them, by the database itself: an index on a generated column never answers a question alone.
      `ALTER TABLE visits ADD COLUMN service TEXT NOT NULL DEFAULT ''`,
      `UPDATE visits SET service = jobs ->> '$[0].service'`,
      ...['INSERT', 'UPDATE OF jobs'].map(
        (change, i) => `CREATE TRIGGER visit_service_${i} AFTER ${change} ON visits BEGIN
          UPDATE visits SET service = NEW.jobs ->> '$[0].service' WHERE id = NEW.id; END`,
      ),
      ...['loads', 'leftMm', 'choices'].map(
        (column) =>
          `ALTER TABLE visits ADD COLUMN ${column} JSON GENERATED ALWAYS AS (jobs ->> '$[0].${column}') VIRTUAL`,
      ),
      ...['dueFromMs', 'dueToMs'].map(
        (column) =>
          `ALTER TABLE visits ADD COLUMN ${column} INTEGER GENERATED ALWAYS AS (jobs ->> '$[0].${column}') VIRTUAL`,
      ),
      `CREATE INDEX visits_by_kind ON visits (state, clientId, service, endedAtMs)`,
      `CREATE INDEX visits_by_end ON visits (endedAtMs, clientId, service)`,
      // What a message is for, which its subject told before.
      `ALTER TABLE messages ADD COLUMN kind TEXT NOT NULL DEFAULT 'care'
        CHECK (kind IN ('care', 'question', 'next'))`,
      `UPDATE messages SET kind = 'question' WHERE subject = 'How is your skin?'`,
      `UPDATE messages SET kind = 'next' WHERE subject LIKE 'Good days%'`,
      // An event on a step belongs to the step's job.
      `ALTER TABLE chair_events ADD COLUMN jobId TEXT`,
      `UPDATE chair_events SET jobId = visitId
       WHERE stepId IS NOT NULL AND stepId NOT LIKE 'prepare:%' AND stepId NOT LIKE 'close:%'
         AND stepId NOT LIKE 'lather:%' AND stepId <> 'check'`,
    ],
  },
  {
    name: '0008-trust',
    up: [
      // How many writes were kept: told to a file beside this one after each, so that a shortened log is noticed.
      `CREATE TABLE ledger (one INTEGER PRIMARY KEY CHECK (one = 1), writes INTEGER NOT NULL)`,
      `INSERT INTO ledger VALUES (1, 0)`,
      // Files that are to go, or that have no row yet: what a kill leaves here is deleted at the next start.
      `CREATE TABLE files_to_delete (path TEXT PRIMARY KEY, atMs INTEGER NOT NULL) WITHOUT ROWID`,
      // Who was erased, by number only: a backup of before does not bring them back.
      `CREATE TABLE erased (
        clientId TEXT PRIMARY KEY, photos JSON NOT NULL, atMs INTEGER NOT NULL) WITHOUT ROWID`,
    ],
  },
  {
    name: '0009-people',
    up: [
      // What a worker may do, and what they sign in with (argon2id); who has left stays named on what they did.
      `ALTER TABLE workers ADD COLUMN rank TEXT NOT NULL DEFAULT 'worker'
        CHECK (rank IN ('owner', 'worker', 'learner', 'front-desk'))`,
      `ALTER TABLE workers ADD COLUMN secret TEXT`,
      `ALTER TABLE workers ADD COLUMN goneAtMs INTEGER`,
      // Other machines' screens; of what lets them in only the digest is kept.
      `CREATE TABLE screens (
        id TEXT PRIMARY KEY, name TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('tablet', 'wall')),
        digest TEXT NOT NULL UNIQUE, pairedAtMs INTEGER NOT NULL, seenAtMs INTEGER, takenBackAtMs INTEGER)`,
      // Who looked at, changed, took out or erased what: each line's hash holds the one before it. By number only, so
      // that it may stay when a client is erased.
      `CREATE TABLE trail (
        seq INTEGER PRIMARY KEY, atMs INTEGER NOT NULL, workerId TEXT, worker TEXT NOT NULL, screen TEXT NOT NULL,
        use TEXT NOT NULL, what TEXT NOT NULL, clientId TEXT, hash TEXT NOT NULL)`,
      `CREATE INDEX trail_by_client ON trail (clientId, seq)`,
      `CREATE INDEX trail_by_worker ON trail (workerId, seq)`,
      ...(['UPDATE', 'DELETE'] as const).map(
        (
          change,
        ) => `CREATE TRIGGER trail_stays_${change.toLowerCase()} BEFORE ${change} ON trail BEGIN
          SELECT RAISE(ABORT, 'the trail is only added to'); END`,
      ),
    ],
  },
  {
    name: '0010-size',
    up: [
      // What is found, ordered and counted of a client without reading their visits; and what their visits add to the
      // studio. Made from what is kept elsewhere, made anew where a mark is not the one it was made for.
      `CREATE TABLE standings (
        num INTEGER PRIMARY KEY,
        clientId TEXT NOT NULL UNIQUE REFERENCES clients(id) ON DELETE CASCADE,
        nameKey TEXT NOT NULL DEFAULT '', visits INTEGER NOT NULL DEFAULT 0, lastAtMs INTEGER,
        dueFromMs INTEGER, dueToMs INTEGER, alarms INTEGER NOT NULL DEFAULT 0,
        owed JSON NOT NULL DEFAULT '[]', owedUntilMs INTEGER NOT NULL DEFAULT 0,
        mark INTEGER NOT NULL DEFAULT 1, madeFor INTEGER NOT NULL DEFAULT 0,
        sumsMark INTEGER NOT NULL DEFAULT 1, sumsFor INTEGER NOT NULL DEFAULT 0, sumsUntilMs INTEGER)`,
      `INSERT INTO standings (clientId) SELECT id FROM clients ORDER BY createdAtMs`,
      `CREATE INDEX standings_stale ON standings (clientId) WHERE mark <> madeFor`,
      `CREATE INDEX standings_sums_stale ON standings (clientId) WHERE sumsMark <> sumsFor`,
      `CREATE TABLE client_sums (
        clientId TEXT PRIMARY KEY REFERENCES clients(id) ON DELETE CASCADE, sums JSON NOT NULL) WITHOUT ROWID`,
      `CREATE INDEX visits_open ON visits (clientId, slotAtMs, state) WHERE state <> 'finished'`,
      // Names by the beginnings of their words. What is erased leaves nothing behind in it.
      `CREATE VIRTUAL TABLE client_names USING fts5(name, calledName, occupation,
        tokenize = "unicode61 remove_diacritics 2", prefix = '1 2 3')`,
      `INSERT INTO client_names (client_names, rank) VALUES ('secure-delete', 1)`,
      `INSERT INTO client_names (rowid, name, calledName, occupation)
        SELECT s.num, c.name, c.calledName, c.occupation FROM clients c JOIN standings s ON s.clientId = c.id`,
      `CREATE TRIGGER client_stands AFTER INSERT ON clients BEGIN
        INSERT INTO standings (clientId) VALUES (NEW.id);
        INSERT INTO client_names (rowid, name, calledName, occupation)
          SELECT num, NEW.name, NEW.calledName, NEW.occupation FROM standings WHERE clientId = NEW.id; END`,
      `CREATE TRIGGER client_named AFTER UPDATE OF name, calledName, occupation ON clients BEGIN
        UPDATE client_names SET name = NEW.name, calledName = NEW.calledName, occupation = NEW.occupation
          WHERE rowid = (SELECT num FROM standings WHERE clientId = NEW.id); END`,
      `CREATE TRIGGER client_goes BEFORE DELETE ON clients BEGIN
        DELETE FROM client_names WHERE rowid = (SELECT num FROM standings WHERE clientId = OLD.id); END`,
      `CREATE TRIGGER client_changes AFTER UPDATE OF name, service, skin, schools ON clients BEGIN
        UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + (OLD.skin IS NOT NEW.skin)
          WHERE clientId = NEW.id; END`,
      // Whatever a standing is made of changes its mark, whoever writes it.
      ...MARKING.flatMap(([table, of, marks]) =>
        (['INSERT', 'UPDATE', 'DELETE'] as const).map((change) => {
          const row = change === 'DELETE' ? 'OLD' : 'NEW'
          return `CREATE TRIGGER ${table}_mark_${change.toLowerCase()} AFTER ${change} ON ${table} BEGIN
            UPDATE standings SET ${marks} WHERE clientId = ${of(row)}; END`
        }),
      ),
      // The figures and schools of the house bear on every window.
      ...(['INSERT', 'UPDATE'] as const).map(
        (change) => `CREATE TRIGGER house_marks_${change.toLowerCase()} AFTER ${change} ON settings
          WHEN NEW.key = 'house' ${change === 'UPDATE' ? `AND (NEW.value ->> '$.figures' IS NOT OLD.value ->> '$.figures' OR NEW.value ->> '$.schools' IS NOT OLD.value ->> '$.schools')` : ''} BEGIN
          UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1; END`,
      ),
    ],
  },
  {
    name: '0011-differences',
    up: [
      // What two screens entered differently without knowing of each other; both stay until somebody has chosen.
      `CREATE TABLE differences (
        id TEXT PRIMARY KEY, what TEXT NOT NULL, path JSON NOT NULL,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        visitId TEXT REFERENCES visits(id) ON DELETE CASCADE,
        mine JSON NOT NULL, theirs JSON NOT NULL, worker TEXT NOT NULL, enteredAtMs INTEGER NOT NULL,
        atMs INTEGER NOT NULL, settledAtMs INTEGER, taken TEXT)`,
      `CREATE INDEX differences_open ON differences (clientId) WHERE settledAtMs IS NULL`,
    ],
  },
  {
    name: '0012-paces',
    up: [
      // How long the worker's strokes took over those of the default figure; services of before were not timed.
      `ALTER TABLE visits ADD COLUMN pace REAL`,
      `CREATE INDEX visits_paces ON visits (workerId, endedAtMs, service, pace) WHERE pace IS NOT NULL`,
    ],
  },
  {
    name: '0013-honest-sums',
    up: [
      // Sums are laid out otherwise now, and every window is told from other models: all is made anew.
      `DELETE FROM client_sums`,
      `UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1`,
    ],
  },
  {
    name: '0014-ready-skin',
    up: [
      // From when the skin is clear enough, by the looks at it and by what is believed of it.
      `ALTER TABLE standings ADD COLUMN readyMs INTEGER`,
      // Within how far of what their others said two of three of the visit's readings lay, degrees, and how many there were.
      `ALTER TABLE visits ADD COLUMN readDeg REAL`,
      `ALTER TABLE visits ADD COLUMN readCount INTEGER`,
      `CREATE INDEX visits_readers ON visits (workerId, endedAtMs, readDeg, readCount) WHERE readDeg IS NOT NULL AND state = 'finished'`,
      // The days on which the house is closed bear on every window, too.
      `DROP TRIGGER house_marks_update`,
      `CREATE TRIGGER house_marks_update AFTER UPDATE ON settings
        WHEN NEW.key = 'house' AND (${['figures', 'schools', 'closed']
          .map((k) => `NEW.value ->> '$.${k}' IS NOT OLD.value ->> '$.${k}'`)
          .join(' OR ')}) BEGIN
        UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1; END`,
      `UPDATE standings SET mark = mark + 1`,
    ],
  },
  {
    name: '0015-day-of-birth',
    up: [`ALTER TABLE clients ADD COLUMN bornOn TEXT NOT NULL DEFAULT ''`],
  },
  {
    name: '0016-sittings',
    up: [
      // Of a visit of several jobs its loads, the hair left and what was chosen are those of all of them together: kept beside
      // the jobs by the database itself. What was gone over twice bears both loads; the shortest hair counts.
      `DROP TRIGGER visit_service_0`,
      `DROP TRIGGER visit_service_1`,
      ...['loads', 'leftMm', 'choices'].flatMap((column) => [
        `ALTER TABLE visits DROP COLUMN ${column}`,
        `ALTER TABLE visits ADD COLUMN ${column} JSON`,
      ]),
      // Every job of a finished visit by its kind: the last of each is found without reading the visits.
      `CREATE TABLE visit_jobs (
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE, service TEXT NOT NULL, method TEXT NOT NULL,
        endedAtMs INTEGER NOT NULL, visitId TEXT NOT NULL REFERENCES visits(id) ON DELETE CASCADE,
        PRIMARY KEY (clientId, service, method, endedAtMs, visitId)) WITHOUT ROWID`,
      `CREATE INDEX visit_jobs_by_visit ON visit_jobs (visitId)`,
      `UPDATE visits SET ${TOGETHER}`,
      KEEP_JOBS,
      ...['INSERT', 'UPDATE OF jobs, state, endedAtMs'].map(
        (change, i) => `CREATE TRIGGER visit_jobs_${i} AFTER ${change} ON visits BEGIN
          UPDATE visits SET ${TOGETHER} WHERE id = NEW.id;
          DELETE FROM visit_jobs WHERE visitId = NEW.id;
          ${KEEP_JOBS} AND visits.id = NEW.id; END`,
      ),
      // From when the skin is clear enough, by kind of work.
      `ALTER TABLE standings DROP COLUMN readyMs`,
      `ALTER TABLE standings ADD COLUMN readyOf JSON`,
      `UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1`,
      // Hair that came out by its root says nothing of how fast hair grows.
      `ALTER TABLE hair_readings ADD COLUMN byRoot INTEGER NOT NULL DEFAULT 0`,
    ],
  },
  {
    name: '0017-at-home',
    up: [
      // What clients take off themselves between visits.
      `CREATE TABLE home_work (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        atMs INTEGER NOT NULL, zones JSON NOT NULL, tool TEXT NOT NULL,
        fresh INTEGER NOT NULL DEFAULT 0, dull INTEGER NOT NULL DEFAULT 0,
        source TEXT NOT NULL CHECK (source IN ('client', 'worker')), toldAtMs INTEGER NOT NULL)`,
      `CREATE INDEX home_by_client ON home_work (clientId, atMs)`,
      ...(['INSERT', 'UPDATE', 'DELETE'] as const).map((change) => {
        const row = change === 'DELETE' ? 'OLD' : 'NEW'
        return `CREATE TRIGGER home_work_mark_${change.toLowerCase()} AFTER ${change} ON home_work BEGIN
          UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1 WHERE clientId = ${row}.clientId; END`
      }),
    ],
  },
  {
    name: '0018-misses',
    up: [
      // In which zones something had been missed at the second look, with the hair there.
      `ALTER TABLE visits ADD COLUMN misses JSON`,
      `CREATE INDEX visits_misses ON visits (endedAtMs) WHERE misses IS NOT NULL`,
    ],
  },
  {
    name: '0019-the-book',
    up: [
      // Who comes when to whom. What is done stands with the visit once there is one.
      `CREATE TABLE appointments (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        visitId TEXT REFERENCES visits(id) ON DELETE CASCADE,
        workerId TEXT NOT NULL REFERENCES workers(id),
        startMs INTEGER NOT NULL, minutes INTEGER NOT NULL CHECK (minutes > 0),
        jobs JSON NOT NULL DEFAULT '[]', note TEXT NOT NULL DEFAULT '',
        state TEXT NOT NULL CHECK (state IN ('booked', 'confirmed', 'arrived', 'missed', 'cancelled')),
        cancelledAtMs INTEGER, madeAtMs INTEGER NOT NULL,
        mark INTEGER NOT NULL DEFAULT 1, changedBy TEXT NOT NULL DEFAULT '')`,
      `CREATE UNIQUE INDEX appointments_by_visit ON appointments (visitId) WHERE visitId IS NOT NULL`,
      `CREATE INDEX appointments_by_start ON appointments (startMs)`,
      `CREATE INDEX appointments_by_client ON appointments (clientId, startMs, state)`,
      // Visits kept before were each their own appointment, on the five minutes.
      VISITS_INTO_BOOK,
      // The hour and the worker of a visit that has not begun are its appointment's.
      ...['INSERT', 'UPDATE OF startMs, workerId, state, visitId'].map(
        (
          change,
          i,
        ) => `CREATE TRIGGER appointment_visit_${i} AFTER ${change} ON appointments WHEN NEW.visitId IS NOT NULL BEGIN
          UPDATE visits SET workerId = NEW.workerId,
            slotAtMs = CASE WHEN NEW.state IN ('cancelled', 'missed') THEN NULL ELSE NEW.startMs END
          WHERE id = NEW.visitId AND state = 'open'; END`,
      ),
      `CREATE TRIGGER appointment_visit_2 AFTER UPDATE OF visitId ON appointments WHEN OLD.visitId IS NOT NEW.visitId BEGIN
        UPDATE visits SET slotAtMs = NULL WHERE id = OLD.visitId AND state = 'open'
          AND NOT EXISTS (SELECT 1 FROM appointments WHERE visitId = OLD.visitId); END`,
      // Time that is not to be had: of one worker, or of the house.
      `CREATE TABLE away (
        id TEXT PRIMARY KEY, workerId TEXT REFERENCES workers(id) ON DELETE CASCADE,
        fromMs INTEGER NOT NULL, toMs INTEGER NOT NULL CHECK (toMs > fromMs),
        why TEXT NOT NULL DEFAULT '', source TEXT NOT NULL DEFAULT 'hand' CHECK (source IN ('hand', 'calendar')))`,
      `CREATE INDEX away_by_end ON away (toMs)`,
      // Hours by day of the week, and services that they may do; null where they are the house's.
      `ALTER TABLE workers ADD COLUMN hours JSON`,
      `ALTER TABLE workers ADD COLUMN services JSON`,
      // How long the plan takes that was kept last.
      `ALTER TABLE visits ADD COLUMN planMin REAL`,
    ],
  },
  {
    name: '0020-the-week',
    up: [
      // Messages are to a client, about a visit or about an hour in the book; which hour they tell of.
      `CREATE TABLE messages_now (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        visitId TEXT REFERENCES visits(id) ON DELETE CASCADE,
        appointmentId TEXT REFERENCES appointments(id) ON DELETE CASCADE,
        kind TEXT NOT NULL CHECK (kind IN ('care', 'question', 'next', 'reminder', 'late', 'moved', 'offer', 'gone')),
        subject TEXT NOT NULL, text TEXT NOT NULL, dueAtMs INTEGER NOT NULL,
        state TEXT NOT NULL CHECK (state IN ('waiting', 'taken-back')), aboutMs INTEGER)`,
      `INSERT INTO messages_now (id, clientId, visitId, kind, subject, text, dueAtMs, state)
        SELECT m.id, v.clientId, m.visitId, m.kind, m.subject, m.text, m.dueAtMs, m.state
        FROM messages m JOIN visits v ON v.id = m.visitId`,
      `DROP TABLE messages`,
      `ALTER TABLE messages_now RENAME TO messages`,
      `CREATE INDEX messages_by_visit ON messages (visitId)`,
      `CREATE INDEX messages_by_due ON messages (dueAtMs)`,
      `CREATE INDEX messages_by_client ON messages (clientId)`,
      `CREATE INDEX messages_by_appointment ON messages (appointmentId, kind, dueAtMs) WHERE appointmentId IS NOT NULL`,
      // When clients can come, and whom the house serves first where hours are short.
      `CREATE TABLE client_hours (
        clientId TEXT PRIMARY KEY REFERENCES clients(id) ON DELETE CASCADE,
        wishes JSON NOT NULL, first INTEGER NOT NULL DEFAULT 0)`,
      // Who waits for an hour.
      `CREATE TABLE waiting (
        id TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        jobs JSON NOT NULL, wishes JSON NOT NULL, note TEXT NOT NULL DEFAULT '',
        sinceMs INTEGER NOT NULL, doneAtMs INTEGER)`,
      `CREATE INDEX waiting_open ON waiting (sinceMs) WHERE doneAtMs IS NULL`,
      `CREATE INDEX waiting_by_client ON waiting (clientId)`,
      // An hour that came free and to whom it was offered: whoever takes it first has it.
      `CREATE TABLE offers (
        id TEXT PRIMARY KEY,
        workerId TEXT NOT NULL REFERENCES workers(id),
        fromMs INTEGER NOT NULL, toMs INTEGER NOT NULL, madeAtMs INTEGER NOT NULL,
        closedAtMs INTEGER, takenBy TEXT REFERENCES clients(id) ON DELETE SET NULL)`,
      `CREATE INDEX offers_open ON offers (fromMs) WHERE closedAtMs IS NULL`,
      `CREATE TABLE offered (
        offerId TEXT NOT NULL REFERENCES offers(id) ON DELETE CASCADE,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        startMs INTEGER NOT NULL, minutes INTEGER NOT NULL, jobs JSON NOT NULL,
        hasId TEXT REFERENCES appointments(id) ON DELETE SET NULL,
        messageId TEXT REFERENCES messages(id) ON DELETE SET NULL,
        PRIMARY KEY (offerId, clientId)) WITHOUT ROWID`,
      // Pages on which a client answers for one hour: of the token only its digest is kept.
      `CREATE TABLE hour_links (
        digest TEXT PRIMARY KEY,
        clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
        appointmentId TEXT REFERENCES appointments(id) ON DELETE CASCADE,
        offerId TEXT REFERENCES offers(id) ON DELETE CASCADE,
        createdAtMs INTEGER NOT NULL, expiresAtMs INTEGER NOT NULL, takenBackAtMs INTEGER)`,
      `CREATE INDEX hour_links_by_appointment ON hour_links (appointmentId)`,
      // Calendars of workers: whoever knows the address may read hours, until it is taken back.
      `CREATE TABLE feeds (
        digest TEXT PRIMARY KEY,
        workerId TEXT NOT NULL REFERENCES workers(id) ON DELETE CASCADE,
        createdAtMs INTEGER NOT NULL, takenBackAtMs INTEGER)`,
      // Blades that the plan lays out that was kept last.
      `ALTER TABLE visits ADD COLUMN planBlades JSON`,
    ],
  },
]
