import path from 'node:path';
import helmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import Fastify from 'fastify';
import type { FastifyInstance, FastifyServerOptions } from 'fastify';
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import type { Context } from './context';
import { handleErrors, notFound } from './problem';
import { dayRoutes } from './routes/days';
import { documentRoutes } from './routes/documents';
import { eventRoutes } from './routes/events';
import { VERSION, healthRoute } from './routes/health';
import { kitchenRoutes } from './routes/kitchen';
import { liveRoute } from './routes/live';
import { recordRoutes } from './routes/record';
import { ruleRoutes } from './routes/rules';
import { thermometerRoutes } from './routes/thermometers';
import { pantryRoutes } from './routes/pantry';
import { salesRoutes } from './routes/sales';
import { serviceRoutes } from './routes/services';
import { soupRoutes } from './routes/soups';

const A_YEAR = 'public, max-age=31536000, immutable';

/** The HTTP application: the API under /api and, when `webRoot` is given, the app on every other path. */
export async function buildApp(context: Context, options: { readonly webRoot: string | null; readonly logger: FastifyServerOptions['logger'] }): Promise<FastifyInstance> {
  // Live streams never end by themselves: closing the server must end them.
  const app = Fastify({ logger: options.logger ?? false, forceCloseConnections: true, bodyLimit: 1_048_576 });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  handleErrors(app);
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // The planner's inner loops are WebAssembly.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // react-native-web writes its style sheet into the page.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        // Plain http on loopback: there is nothing to upgrade to.
        upgradeInsecureRequests: null,
      },
    },
  });
  await app.register(swagger, {
    openapi: { info: { title: 'Broth Board', version: VERSION, description: 'Par, batches, sequence, live day and temperature log of a soup station.' } },
    transform: jsonSchemaTransform,
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs' });
  await app.register(
    (instance, _options, done) => {
      const api = instance.withTypeProvider<ZodTypeProvider>();
      for (const routes of [
        healthRoute,
        kitchenRoutes,
        serviceRoutes,
        soupRoutes,
        pantryRoutes,
        salesRoutes,
        dayRoutes,
        eventRoutes,
        liveRoute,
        documentRoutes,
        ruleRoutes,
        thermometerRoutes,
        recordRoutes,
      ])
        routes(api, context);
      done();
    },
    { prefix: '/api' },
  );
  const { webRoot } = options;
  if (webRoot !== null) {
    await app.register(fastifyStatic, {
      root: path.resolve(webRoot),
      wildcard: false,
      preCompressed: true,
      setHeaders: (reply, file) => {
        reply.header('cache-control', /[\\/](_expo[\\/]static|assets)[\\/]/.test(file) ? A_YEAR : 'no-cache');
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    // A browser that opens an address asks for HTML; a missing script or picture does not get a page for an answer.
    const isPage = request.method === 'GET' && !request.url.startsWith('/api') && (request.headers.accept ?? '').includes('text/html');
    if (webRoot !== null && isPage) return reply.header('cache-control', 'no-cache').sendFile('index.html');
    return notFound(request, reply);
  });
  return app;
}
