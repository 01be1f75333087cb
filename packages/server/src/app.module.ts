import { DynamicModule, Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR, APP_PIPE, DiscoveryModule } from '@nestjs/core';
import { LoggerModule } from 'nestjs-pino';
import { ZodSerializerInterceptor, ZodValidationPipe } from 'nestjs-zod';
import { CLOCK, Clock, SystemClock, WALL_CLOCK } from './clock/clock';
import { ClockController } from './clock/clock.controller';
import { CONFIG, Config } from './config';
import { DATABASE, Database } from './db/database';
import { EventStore } from './events/event.store';
import { HostStore } from './hosts/host.store';
import { HostsController } from './hosts/hosts.controller';
import { Sealer } from './secrets/sealer';
import { Advancer } from './engine/advance';
import { Outward } from './engine/acts/outward';
import { Claims } from './engine/claims';
import { SurveyStep } from './engine/surveyStep';
import { DecisionStore } from './moves/decision.store';
import { LegLoader } from './moves/legLoader';
import { LoadedMoves } from './moves/loadedMoves';
import { ObservationStore } from './moves/observation.store';
import { WakeUps } from './moves/wakeUps';
import { Boss } from './engine/boss';
import { JobQueue } from './engine/queue';
import { LiveController } from './live/live.controller';
import { LiveService } from './live/live.service';
import { Streams } from './live/streams';
import { BeginService } from './moves/begin.service';
import { ChoosingService } from './moves/choosing.service';
import { FrontService } from './moves/front.service';
import { Registries } from './registries/registries.service';
import { RegistryListStore } from './registries/registryList.store';
import { ResolverStore } from './resolvers/resolver.store';
import { ResolversController } from './resolvers/resolvers.controller';
import { SettingsController } from './settings/settings.controller';
import { ResolversService } from './resolvers/resolvers.service';
import { MoveService } from './moves/moves.service';
import { PlanReadService } from './moves/planRead.service';
import { CursorService } from './moves/cursors.service';
import { RuleService } from './moves/rules.service';
import { RemarkService } from './moves/remarks.service';
import { WaysService } from './moves/ways.service';
import { MoveStore } from './moves/move.store';
import { MovePages } from './moves/moves.pages';
import { MoveViews } from './moves/moves.view';
import { MoveActs } from './moves/moveActs';
import { MovesController } from './moves/moves.controller';
import { RulingService } from './moves/rulings.service';
import { RowStoryService } from './moves/rowStory.service';
import { RowsController } from './moves/rows.controller';
import { RulingsController } from './moves/rulings.controller';
import { Network } from './network/network';
import { PeopleController } from './people/people.controller';
import { Hashing } from './people/hashing';
import { MeController } from './people/me.controller';
import { FirstPerson } from './people/firstPerson.service';
import { PeopleService } from './people/people.service';
import { SecondFactor } from './people/secondFactor.service';
import { SessionService } from './people/sessions.service';
import { SignInService } from './people/signIn.service';
import { TrailController } from './events/trail.controller';
import { TrailSealer } from './events/trailSealer';
import { SignInLimits } from './people/signInLimits';
import { SessionGuard } from './people/session.guard';
import { ProblemFilter } from './problem';
import { SheetLinks } from './sheets/sheetLinks.service';
import { SheetsController } from './sheets/sheets.controller';
import { Reader } from './reading/reader';
import { RunningSurveys } from './survey/runningSurveys';
import { SurveyActs } from './survey/surveyActs';
import { SurveyController } from './survey/survey.controller';
import { InHandStore } from './survey/inHand.store';
import { SurveyStore } from './survey/survey.store';
import { Surveyor } from './survey/surveyor';
import { SurveyViews } from './survey/survey.view';
import { SweepService } from './sweeps/sweep.service';
import { SweepStore } from './sweeps/sweep.store';
import { SweepWorker } from './sweeps/sweepWorker';
import { SweepsController } from './sweeps/sweeps.controller';
import { WatchController } from './watch/watch.controller';
import { WebsiteLookStore } from './watch/websiteLook.store';

@Module({})
export class AppModule {
  static with(config: Config, database: Database, clock: Clock): DynamicModule {
    return {
      module: AppModule,
      imports: [DiscoveryModule, LoggerModule.forRoot({ pinoHttp: { level: config.WANDERON_LOG, autoLogging: false }, forRoutes: [] })],
      controllers: [
        ClockController,
        MeController,
        PeopleController,
        TrailController,
        HostsController,
        ResolversController,
        SettingsController,
        MovesController,
        RowsController,
        RulingsController,
        SurveyController,
        SweepsController,
        LiveController,
        WatchController,
        SheetsController,
      ],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: DATABASE, useValue: database },
        { provide: CLOCK, useValue: clock },
        { provide: WALL_CLOCK, useClass: SystemClock },
        { provide: APP_GUARD, useClass: SessionGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useClass: ZodValidationPipe },
        { provide: APP_INTERCEPTOR, useClass: ZodSerializerInterceptor },
        EventStore,
        TrailSealer,
        SignInLimits,
        Hashing,
        SessionService,
        SecondFactor,
        SignInService,
        PeopleService,
        FirstPerson,
        Sealer,
        HostStore,
        LiveService,
        Streams,
        Network,
        MoveStore,
        SheetLinks,
        DecisionStore,
        ObservationStore,
        LegLoader,
        WakeUps,
        LoadedMoves,
        MovePages,
        MoveViews,
        MoveActs,
        SurveyActs,
        Reader,
        RunningSurveys,
        Surveyor,
        BeginService,
        ChoosingService,
        FrontService,
        ResolverStore,
        ResolversService,
        Registries,
        RegistryListStore,
        MoveService,
        RulingService,
        PlanReadService,
        RemarkService,
        RuleService,
        CursorService,
        RowStoryService,
        WaysService,
        SurveyStore,
        InHandStore,
        SurveyViews,
        WebsiteLookStore,
        Boss,
        Claims,
        Outward,
        SurveyStep,
        Advancer,
        JobQueue,
        SweepStore,
        SweepWorker,
        SweepService,
      ],
    };
  }
}
