using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Foundation : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Aircraft",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Registration = table.Column<string>(type: "TEXT", nullable: false),
                    Type = table.Column<string>(type: "TEXT", nullable: false),
                    SerialNumber = table.Column<string>(type: "TEXT", nullable: false),
                    Category = table.Column<string>(type: "TEXT", nullable: false),
                    Configuration = table.Column<string>(type: "TEXT", nullable: false),
                    TimeBasis = table.Column<string>(type: "TEXT", nullable: false),
                    TimeInService = table.Column<string>(type: "TEXT", nullable: false),
                    ReadOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false),
                    CableTables = table.Column<string>(type: "TEXT", nullable: false),
                    GapNotes = table.Column<string>(type: "TEXT", nullable: false),
                    Limits = table.Column<string>(type: "TEXT", nullable: false),
                    Meters = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Aircraft", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    UserName = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    NormalizedUserName = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    Email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    NormalizedEmail = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    EmailConfirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    PasswordHash = table.Column<string>(type: "TEXT", nullable: true),
                    SecurityStamp = table.Column<string>(type: "TEXT", nullable: true),
                    ConcurrencyStamp = table.Column<string>(type: "TEXT", nullable: true),
                    PhoneNumber = table.Column<string>(type: "TEXT", nullable: true),
                    PhoneNumberConfirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    TwoFactorEnabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    LockoutEnd = table.Column<string>(type: "TEXT", nullable: true),
                    LockoutEnabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    AccessFailedCount = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUsers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Bulletins",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Family = table.Column<string>(type: "TEXT", nullable: false),
                    Revision = table.Column<string>(type: "TEXT", nullable: false),
                    Bulletin = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: true),
                    ReceivedAt = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false),
                    Attachments = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Bulletins", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Component",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    PartNumber = table.Column<string>(type: "TEXT", nullable: false),
                    SerialNumber = table.Column<string>(type: "TEXT", nullable: false),
                    MadeOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    LayoutKey = table.Column<string>(type: "TEXT", nullable: true),
                    OwnFiringOrder = table.Column<string>(type: "TEXT", nullable: true),
                    Ignition = table.Column<string>(type: "TEXT", nullable: true),
                    Suits = table.Column<string>(type: "TEXT", nullable: true),
                    CompressionRule = table.Column<string>(type: "TEXT", nullable: true),
                    Overhauls = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Component", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Editions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    IsDraft = table.Column<bool>(type: "INTEGER", nullable: false),
                    Sheet = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: true),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Editions", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Feeds",
                columns: table => new
                {
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Said = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Feeds", x => x.Source);
                });

            migrationBuilder.CreateTable(
                name: "People",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Initials = table.Column<string>(type: "TEXT", nullable: false),
                    CalendarKeyHash = table.Column<string>(type: "TEXT", nullable: true),
                    Certificates = table.Column<string>(type: "TEXT", nullable: false),
                    Roles = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_People", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Postings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Postings", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Shop",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Rules = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Shop", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Tools",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    IsTorqueWrench = table.Column<bool>(type: "INTEGER", nullable: false),
                    CalibratedUntil = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    LengthInches = table.Column<double>(type: "REAL", nullable: true),
                    IsRetired = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Tools", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Whereabouts",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TaskId = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Whereabouts", x => new { x.PersonId, x.InspectionId });
                });

            migrationBuilder.CreateTable(
                name: "Inspections",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Arrival = table.Column<string>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    WorkOrder = table.Column<string>(type: "TEXT", nullable: false),
                    OpenedOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    TimeInService = table.Column<string>(type: "TEXT", nullable: false),
                    House = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false),
                    BenchChecks = table.Column<string>(type: "TEXT", nullable: false),
                    BenchedMagnetos = table.Column<string>(type: "TEXT", nullable: false),
                    Bulletins = table.Column<string>(type: "TEXT", nullable: false),
                    CarriedMarks = table.Column<string>(type: "TEXT", nullable: false),
                    FilterCuts = table.Column<string>(type: "TEXT", nullable: false),
                    ForeignObjects = table.Column<string>(type: "TEXT", nullable: false),
                    LeftOut = table.Column<string>(type: "TEXT", nullable: false),
                    Looks = table.Column<string>(type: "TEXT", nullable: false),
                    NotDue = table.Column<string>(type: "TEXT", nullable: false),
                    PlugMarks = table.Column<string>(type: "TEXT", nullable: false),
                    Sheets = table.Column<string>(type: "TEXT", nullable: false),
                    Squawks = table.Column<string>(type: "TEXT", nullable: false),
                    Tags = table.Column<string>(type: "TEXT", nullable: false),
                    ToolsOut = table.Column<string>(type: "TEXT", nullable: false),
                    WitnessMarks = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Inspections", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Inspections_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "LogBooks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    FirstOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    LastOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    IsLost = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LogBooks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LogBooks_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "MeterReadings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Meter = table.Column<int>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Shown = table.Column<decimal>(type: "TEXT", nullable: false),
                    Total = table.Column<decimal>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MeterReadings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_MeterReadings_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClaimType = table.Column<string>(type: "TEXT", nullable: true),
                    ClaimValue = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserClaims", x => x.Id);
                    table.ForeignKey(
                        name: "FK_AspNetUserClaims_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    LoginProvider = table.Column<string>(type: "TEXT", nullable: false),
                    ProviderKey = table.Column<string>(type: "TEXT", nullable: false),
                    ProviderDisplayName = table.Column<string>(type: "TEXT", nullable: true),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserLogins", x => new { x.LoginProvider, x.ProviderKey });
                    table.ForeignKey(
                        name: "FK_AspNetUserLogins_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LoginProvider = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserTokens", x => new { x.UserId, x.LoginProvider, x.Name });
                    table.ForeignKey(
                        name: "FK_AspNetUserTokens_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BulletinCases",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Family = table.Column<string>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Policy = table.Column<string>(type: "TEXT", nullable: true),
                    Ferry = table.Column<string>(type: "TEXT", nullable: true),
                    Done = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BulletinCases", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BulletinCases_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_BulletinCases_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "DueItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Interval = table.Column<string>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    DiscrepancyId = table.Column<Guid>(type: "TEXT", nullable: true),
                    LabourHours = table.Column<decimal>(type: "TEXT", nullable: true),
                    RetiredWhy = table.Column<string>(type: "TEXT", nullable: true),
                    Done = table.Column<string>(type: "TEXT", nullable: false),
                    DoneBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DueItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DueItems_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_DueItems_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "EngineLogs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EngineId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Sha256 = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    AddedBy = table.Column<Guid>(type: "TEXT", nullable: false),
                    AddedAt = table.Column<string>(type: "TEXT", nullable: false),
                    Flights = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EngineLogs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_EngineLogs_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_EngineLogs_Component_EngineId",
                        column: x => x.EngineId,
                        principalTable: "Component",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Installations",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ParentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Position = table.Column<string>(type: "TEXT", nullable: false),
                    InstalledOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    InstalledAt = table.Column<string>(type: "TEXT", nullable: false),
                    OwnTimeThen = table.Column<string>(type: "TEXT", nullable: true),
                    RemovedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    RemovedAt = table.Column<string>(type: "TEXT", nullable: true),
                    RemovedWhy = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Installations", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Installations_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Installations_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Installations_Component_ParentId",
                        column: x => x.ParentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "StatedFacts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: false),
                    Photo = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StatedFacts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StatedFacts_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_StatedFacts_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "CompressionTest",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EngineId = table.Column<Guid>(type: "TEXT", nullable: false),
                    SupplyPsi = table.Column<double>(type: "REAL", nullable: false),
                    AmbientPsi = table.Column<double>(type: "REAL", nullable: false),
                    Hot = table.Column<bool>(type: "INTEGER", nullable: false),
                    DayOrificePsi = table.Column<double>(type: "REAL", nullable: true),
                    CautionReadBy = table.Column<Guid>(type: "TEXT", nullable: false),
                    StartedAt = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CompressionTest", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CompressionTest_Component_EngineId",
                        column: x => x.EngineId,
                        principalTable: "Component",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_CompressionTest_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Discrepancy",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    PlainWords = table.Column<string>(type: "TEXT", nullable: true),
                    ZoneKey = table.Column<string>(type: "TEXT", nullable: false),
                    Where = table.Column<string>(type: "TEXT", nullable: false),
                    Pin = table.Column<string>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    How = table.Column<string>(type: "TEXT", nullable: false),
                    MeasuredWords = table.Column<string>(type: "TEXT", nullable: true),
                    Class = table.Column<string>(type: "TEXT", nullable: false),
                    Grounded = table.Column<bool>(type: "INTEGER", nullable: false),
                    TaskId = table.Column<Guid>(type: "TEXT", nullable: true),
                    TaskKey = table.Column<string>(type: "TEXT", nullable: true),
                    FoundBy = table.Column<Guid>(type: "TEXT", nullable: false),
                    FoundAt = table.Column<string>(type: "TEXT", nullable: false),
                    SameAs = table.Column<Guid>(type: "TEXT", nullable: true),
                    Estimate = table.Column<string>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Disposition = table.Column<string>(type: "TEXT", nullable: false),
                    Correction = table.Column<string>(type: "TEXT", nullable: true),
                    CorrectedBy = table.Column<Guid>(type: "TEXT", nullable: true),
                    CorrectedAt = table.Column<string>(type: "TEXT", nullable: true),
                    InspectedBy = table.Column<Guid>(type: "TEXT", nullable: true),
                    InspectedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Examination = table.Column<string>(type: "TEXT", nullable: true),
                    Deferral = table.Column<string>(type: "TEXT", nullable: false),
                    Notes = table.Column<string>(type: "TEXT", nullable: false),
                    Photos = table.Column<string>(type: "TEXT", nullable: false),
                    Sounds = table.Column<string>(type: "TEXT", nullable: false),
                    Steps = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Discrepancy", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Discrepancy_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "InspectionTask",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Order = table.Column<int>(type: "INTEGER", nullable: false),
                    SheetKey = table.Column<string>(type: "TEXT", nullable: false),
                    ZoneKey = table.Column<string>(type: "TEXT", nullable: false),
                    ZoneTitle = table.Column<string>(type: "TEXT", nullable: false),
                    Station = table.Column<string>(type: "TEXT", nullable: false),
                    Book = table.Column<string>(type: "TEXT", nullable: false),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Reference = table.Column<string>(type: "TEXT", nullable: false),
                    Caution = table.Column<string>(type: "TEXT", nullable: true),
                    Measure = table.Column<string>(type: "TEXT", nullable: true),
                    IsCompression = table.Column<bool>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    With = table.Column<string>(type: "TEXT", nullable: true),
                    Needs = table.Column<string>(type: "TEXT", nullable: false),
                    SecondPerson = table.Column<bool>(type: "INTEGER", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false),
                    TiedTo = table.Column<Guid>(type: "TEXT", nullable: true),
                    Verdict = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<Guid>(type: "TEXT", nullable: true),
                    At = table.Column<string>(type: "TEXT", nullable: true),
                    InspectedBy = table.Column<Guid>(type: "TEXT", nullable: true),
                    InspectedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_InspectionTask", x => x.Id);
                    table.ForeignKey(
                        name: "FK_InspectionTask_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OwnerLinks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TokenHash = table.Column<string>(type: "TEXT", nullable: false),
                    SentTo = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    Ends = table.Column<string>(type: "TEXT", nullable: false),
                    RevokedAt = table.Column<string>(type: "TEXT", nullable: true),
                    OpenedAt = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnerLinks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OwnerLinks_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Readings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Position = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<double>(type: "REAL", nullable: false),
                    UnitSymbol = table.Column<string>(type: "TEXT", nullable: false),
                    Conditions = table.Column<string>(type: "TEXT", nullable: false),
                    TimeInService = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: true),
                    TaskId = table.Column<Guid>(type: "TEXT", nullable: true),
                    CompressionTestId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Readings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Readings_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Readings_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Readings_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "SignedRecords",
                columns: table => new
                {
                    Number = table.Column<long>(type: "INTEGER", nullable: false)
                        // Keeps the highest number ever written, so that a record cut off the end of the chain is missed.
                        .Annotation("Sqlite:Autoincrement", true),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Book = table.Column<string>(type: "TEXT", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false),
                    PreviousHash = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    SignedAt = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignedRecords", x => x.Number);
                    table.ForeignKey(
                        name: "FK_SignedRecords_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_SignedRecords_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BookEntries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    BookId = table.Column<Guid>(type: "TEXT", nullable: false),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Hours = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Page = table.Column<string>(type: "TEXT", nullable: false),
                    Photo = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BookEntries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BookEntries_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BookEntries_LogBooks_BookId",
                        column: x => x.BookId,
                        principalTable: "LogBooks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Aircraft_Registration",
                table: "Aircraft",
                column: "Registration",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_AspNetUserClaims_UserId",
                table: "AspNetUserClaims",
                column: "UserId");

            migrationBuilder.CreateIndex(
                name: "IX_AspNetUserLogins_UserId",
                table: "AspNetUserLogins",
                column: "UserId");

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "AspNetUsers",
                column: "NormalizedEmail");

            migrationBuilder.CreateIndex(
                name: "IX_AspNetUsers_PersonId",
                table: "AspNetUsers",
                column: "PersonId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "NormalizedUserName",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BookEntries_AircraftId_On",
                table: "BookEntries",
                columns: new[] { "AircraftId", "On" });

            migrationBuilder.CreateIndex(
                name: "IX_BookEntries_BookId",
                table: "BookEntries",
                column: "BookId");

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_AircraftId",
                table: "BulletinCases",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_ComponentId",
                table: "BulletinCases",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_Family_AircraftId_ComponentId",
                table: "BulletinCases",
                columns: new[] { "Family", "AircraftId", "ComponentId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Bulletins_Family_Revision",
                table: "Bulletins",
                columns: new[] { "Family", "Revision" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Component_SerialNumber",
                table: "Component",
                column: "SerialNumber");

            migrationBuilder.CreateIndex(
                name: "IX_CompressionTest_EngineId",
                table: "CompressionTest",
                column: "EngineId");

            migrationBuilder.CreateIndex(
                name: "IX_CompressionTest_InspectionId",
                table: "CompressionTest",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_Discrepancy_InspectionId_Number",
                table: "Discrepancy",
                columns: new[] { "InspectionId", "Number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Discrepancy_SameAs",
                table: "Discrepancy",
                column: "SameAs");

            migrationBuilder.CreateIndex(
                name: "IX_DueItems_AircraftId",
                table: "DueItems",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_DueItems_ComponentId",
                table: "DueItems",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Editions_Key_Version",
                table: "Editions",
                columns: new[] { "Key", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_EngineLogs_AircraftId",
                table: "EngineLogs",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_EngineLogs_EngineId",
                table: "EngineLogs",
                column: "EngineId");

            migrationBuilder.CreateIndex(
                name: "IX_InspectionTask_InspectionId",
                table: "InspectionTask",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_AircraftId",
                table: "Inspections",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_WorkOrder",
                table: "Inspections",
                column: "WorkOrder",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Installations_AircraftId",
                table: "Installations",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_ComponentId",
                table: "Installations",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_ParentId",
                table: "Installations",
                column: "ParentId");

            migrationBuilder.CreateIndex(
                name: "IX_LogBooks_AircraftId",
                table: "LogBooks",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_MeterReadings_AircraftId_Kind_On",
                table: "MeterReadings",
                columns: new[] { "AircraftId", "Kind", "On" });

            migrationBuilder.CreateIndex(
                name: "IX_OwnerLinks_InspectionId",
                table: "OwnerLinks",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_OwnerLinks_TokenHash",
                table: "OwnerLinks",
                column: "TokenHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_People_CalendarKeyHash",
                table: "People",
                column: "CalendarKeyHash");

            migrationBuilder.CreateIndex(
                name: "IX_Readings_AircraftId_Kind",
                table: "Readings",
                columns: new[] { "AircraftId", "Kind" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_ComponentId",
                table: "Readings",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Readings_InspectionId",
                table: "Readings",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_SignedRecords_AircraftId",
                table: "SignedRecords",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_SignedRecords_InspectionId",
                table: "SignedRecords",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_StatedFacts_AircraftId",
                table: "StatedFacts",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_StatedFacts_ComponentId",
                table: "StatedFacts",
                column: "ComponentId");

            // A signed record never changes: the database refuses what the code would never ask.
            migrationBuilder.Sql("""
                CREATE TRIGGER signed_records_never_change BEFORE UPDATE ON SignedRecords
                BEGIN SELECT RAISE(ABORT, 'A signed record never changes; correct it by a new entry.'); END;
                """);
            migrationBuilder.Sql("""
                CREATE TRIGGER signed_records_never_go BEFORE DELETE ON SignedRecords
                BEGIN SELECT RAISE(ABORT, 'A signed record is never deleted.'); END;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "AspNetUserClaims");

            migrationBuilder.DropTable(
                name: "AspNetUserLogins");

            migrationBuilder.DropTable(
                name: "AspNetUserTokens");

            migrationBuilder.DropTable(
                name: "BookEntries");

            migrationBuilder.DropTable(
                name: "BulletinCases");

            migrationBuilder.DropTable(
                name: "Bulletins");

            migrationBuilder.DropTable(
                name: "CompressionTest");

            migrationBuilder.DropTable(
                name: "Discrepancy");

            migrationBuilder.DropTable(
                name: "DueItems");

            migrationBuilder.DropTable(
                name: "Editions");

            migrationBuilder.DropTable(
                name: "EngineLogs");

            migrationBuilder.DropTable(
                name: "Feeds");

            migrationBuilder.DropTable(
                name: "InspectionTask");

            migrationBuilder.DropTable(
                name: "Installations");

            migrationBuilder.DropTable(
                name: "MeterReadings");

            migrationBuilder.DropTable(
                name: "OwnerLinks");

            migrationBuilder.DropTable(
                name: "People");

            migrationBuilder.DropTable(
                name: "Postings");

            migrationBuilder.DropTable(
                name: "Readings");

            migrationBuilder.DropTable(
                name: "Shop");

            migrationBuilder.DropTable(
                name: "SignedRecords");

            migrationBuilder.DropTable(
                name: "StatedFacts");

            migrationBuilder.DropTable(
                name: "Tools");

            migrationBuilder.DropTable(
                name: "Whereabouts");

            migrationBuilder.DropTable(
                name: "AspNetUsers");

            migrationBuilder.DropTable(
                name: "LogBooks");

            migrationBuilder.DropTable(
                name: "Inspections");

            migrationBuilder.DropTable(
                name: "Component");

            migrationBuilder.DropTable(
                name: "Aircraft");
        }
    }
}
