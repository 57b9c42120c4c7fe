import type { FastifyInstance } from 'fastify';
import type { Context } from '../context';
import { serve } from '../http/routing';
import { dealActivity } from './activity';
import * as changes from './changes';
import * as list from './list';
import * as parties from './party-changes';
import * as rules from './rules';
import * as service from './service';
import { actOnDeals } from './several';
import { actOnStated } from './stated';
import * as views from './views';

/** Serves deals, for members. */
export function dealRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'deals', ({ query }) => list.listDeals(ctx, query));
  serve(app, 'dealsAct', ({ body, member }) => actOnDeals(ctx, body, member));
  serve(app, 'savedViews', ({ member }) => views.savedViews(ctx, member));
  serve(app, 'saveView', ({ body, member }) => views.saveView(ctx, body, member));
  serve(app, 'deleteView', ({ params, member }) => views.deleteView(ctx, params.viewId, member));
  serve(app, 'dealTags', () => list.dealTags(ctx));
  serve(app, 'newDeal', ({ body, member }) => service.openDeal(ctx, body, member));
  serve(app, 'deal', ({ params, member }) => service.dealView(ctx, params.dealId, member));
  serve(app, 'setDeal', ({ params, body, member }) => changes.changeDeal(ctx, params.dealId, body, member));
  serve(app, 'actOnStated', ({ params, body, member }) => actOnStated(ctx, params.dealId, body, member));
  serve(app, 'deleteDeal', ({ params }) => service.deleteDeal(ctx, params.dealId));
  serve(app, 'dealActivity', ({ params, query }) => dealActivity(ctx, params.dealId, query));
  serve(app, 'waive', ({ params, body, member }) =>
    changes.waive(ctx, params.dealId, params.ruleId, body.reason, member),
  );
  serve(app, 'unwaive', ({ params, member }) => changes.unwaive(ctx, params.dealId, params.ruleId, member));
  serve(app, 'addParty', ({ params, body, member }) => parties.addPartyToDeal(ctx, params.dealId, body, member));
  serve(app, 'setParty', ({ params, body, member }) => parties.correctParty(ctx, params.partyId, body, member));
  serve(app, 'removeParty', ({ params, member }) => parties.removeParty(ctx, params.partyId, member));
}

/** Serves the firm's rules, for members. */
export function ruleRoutes(app: FastifyInstance, ctx: Context): void {
  serve(app, 'rules', () => rules.rulesView(ctx));
  serve(app, 'newRule', ({ body }) => rules.saveOneRule(ctx, null, body));
  serve(app, 'tryRule', ({ body }) => rules.tryRule(ctx, body));
  serve(app, 'turnRules', ({ body }) => rules.turnRules(ctx, body.ids, body.on));
  serve(app, 'setRule', ({ params, body }) => rules.saveOneRule(ctx, params.ruleId, body));
  serve(app, 'deleteOneRule', ({ params }) => rules.deleteOneRule(ctx, params.ruleId));
  serve(app, 'setOwnFacts', ({ body }) => rules.setOwnFacts(ctx, body));
}
