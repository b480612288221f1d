import { Refusal, refuse } from '@broth/contract/refusals';
import type { Problem } from '@broth/contract';
import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { isDatabaseAway } from './store/database';

function send(reply: FastifyReply, problem: Problem): FastifyReply {
  return reply.code(problem.status).type('application/problem+json').send(JSON.stringify(problem));
}

function problemOf(error: FastifyError, request: FastifyRequest): Problem {
  if (error instanceof Refusal) return error.problem;
  if (hasZodFastifySchemaValidationErrors(error)) {
    const errors = error.validation.map((issue) => ({ path: issue.instancePath, message: issue.message ?? 'is not valid' }));
    const [first] = errors;
    // A sentence of ours ends with a full stop; a bare schema message needs to be told where it belongs.
    const say = first === undefined ? 'The entry is not complete.' : first.message.endsWith('.') ? first.message : `${first.path}: ${first.message}.`;
    return { ...refuse('body.invalid', { first: say }).problem, errors };
  }
  if (
    error.code === 'FST_ERR_CTP_INVALID_JSON_BODY' ||
    error.code === 'FST_ERR_CTP_EMPTY_JSON_BODY' ||
    error.code === 'FST_ERR_CTP_INVALID_MEDIA_TYPE' ||
    error instanceof SyntaxError
  ) {
    return refuse('body.notJson').problem;
  }
  if (error.code === 'FST_ERR_CTP_BODY_TOO_LARGE') return refuse('body.tooLarge').problem;
  if (isDatabaseAway(error)) return refuse('database.away').problem;
  request.log.error(error);
  return refuse('server.fault', { reference: request.id }).problem;
}

/** Every error leaves as problem+json (RFC 9457) with a sentence a cook can act on. */
export function handleErrors(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError, request, reply) => send(reply, problemOf(error, request)));
}

export function notFound(request: FastifyRequest, reply: FastifyReply): FastifyReply {
  return send(reply, refuse('route.unknown', { path: request.url }).problem);
}
