/** Headers that every page has. */
import helmet from 'helmet'

/** Content policy and the rest, for whatever is served. */
export const HEADERS = () =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        // Mantine writes its variables into style elements.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // The studio's own machine serves plain HTTP.
    strictTransportSecurity: false,
    // Nothing of an address goes to other sites; our own forms still say where they come from.
    referrerPolicy: { policy: 'same-origin' },
    crossOriginEmbedderPolicy: false,
  })
