using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Tensarch.Server.Data.Migrations;

[DbContext(typeof(TensarchDb)), Migration("20261124032511_Start")]
internal sealed class Start : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261125015510_Measuring")]
internal sealed class Measuring : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261125040305_Ladders")]
internal sealed class Ladders : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261125051406_StudioFirst")]
internal sealed class StudioFirst : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261125103451_Roster")]
internal sealed class Roster : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261125214547_Door")]
internal sealed class Door : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126003810_Words")]
internal sealed class Words : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126010221_Floor")]
internal sealed class Floor : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126032804_Devices")]
internal sealed class Devices : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126042128_Notes")]
internal sealed class Notes : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126055707_SessionsOfADay")]
internal sealed class SessionsOfADay : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126063850_Settings")]
internal sealed class Settings : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126070732_Pulses")]
internal sealed class Pulses : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126073009_DrillNames")]
internal sealed class DrillNames : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126124932_SessionsForSeveralSkills")]
internal sealed class SessionsForSeveralSkills : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126132523_SessionsByHand")]
internal sealed class SessionsByHand : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126140314_OwnDrills")]
internal sealed class OwnDrills : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261126230821_Programmes")]
internal sealed class Programmes : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261127022706_CalendarAndRoster")]
internal sealed class CalendarAndRoster : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261127073052_SignalsByDay")]
internal sealed class SignalsByDay : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261128024430_PlansAndSessionsByDay")]
internal sealed class PlansAndSessionsByDay : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261201133233_WhatWasDone")]
internal sealed class WhatWasDone : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261201152026_PlansAndTrainings")]
internal sealed class PlansAndTrainings : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261201182245_ToldLate")]
internal sealed class ToldLate : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261202010739_PlacesAndFacts")]
internal sealed class PlacesAndFacts : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261202071000_FirstLevels")]
internal sealed class FirstLevels : FrozenMigration;

[DbContext(typeof(TensarchDb)), Migration("20261202102225_Consents")]
internal sealed class Consents : FrozenMigration;
