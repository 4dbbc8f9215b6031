BEGIN TRANSACTION;
CREATE TABLE "Aircraft" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Aircraft" PRIMARY KEY,
    "Category" TEXT NOT NULL,
    "Configuration" TEXT NOT NULL,
    "GapNotes" TEXT NOT NULL,
    "Limits" TEXT NOT NULL,
    "Meters" TEXT NOT NULL,
    "ReadOn" TEXT NULL,
    "Registration" TEXT NOT NULL,
    "SerialNumber" TEXT NOT NULL,
    "TimeBasis" TEXT NOT NULL,
    "TimeInService" TEXT NOT NULL,
    "Type" TEXT NOT NULL
, "Revision" INTEGER NOT NULL DEFAULT 0, "CableTables" TEXT NOT NULL DEFAULT '[]');
INSERT INTO "Aircraft" VALUES('01A21DBD-766D-782A-AAE3-3E489BFA7412','Standard','{"wing":"Low","gear":"NoseWheel","engines":1,"seats":2,"retractable":false,"foldingWing":false,"fabric":false}','[]','[{"measure":"static-rpm","unitSymbol":"rpm","low":2275,"high":2425,"reference":"Dunlin manual 71-00, p. 4"},{"measure":"idle-rpm","unitSymbol":"rpm","low":600,"high":750,"reference":"Dunlin manual 71-00, p. 4"},{"measure":"oil-pressure","unitSymbol":"psi","low":55,"high":95,"reference":"Dunlin manual 79-00, p. 2"},{"measure":"fuel-pressure","unitSymbol":"psi","low":0.5,"high":8,"reference":"Dunlin manual 73-00, p. 2"},{"measure":"oil-temperature","unitSymbol":"\u00B0C","low":60,"high":118,"reference":"Dunlin manual 79-00, p. 2"},{"measure":"cylinder-temperature","unitSymbol":"\u00B0C","low":120,"high":240,"reference":"Dunlin manual 71-00, p. 6"},{"measure":"prop-bolt-torque","unitSymbol":"in-lb","low":280,"high":320,"reference":"Dunlin manual 61-10, p. 3"},{"measure":"aileron-cable-left","unitSymbol":"lb","low":35,"high":41,"reference":"Dunlin manual 27-10, p. 5"},{"measure":"aileron-cable-right","unitSymbol":"lb","low":35,"high":41,"reference":"Dunlin manual 27-10, p. 5"},{"measure":"tyre-pressure-main","unitSymbol":"psi","low":28,"high":32,"reference":"Dunlin manual 32-40, p. 1"},{"measure":"brake-disc","unitSymbol":"in","low":0.34,"high":null,"reference":"Dunlin manual 32-40, p. 3"},{"measure":"aileron-up-left","unitSymbol":"\u00B0","low":18,"high":22,"reference":"Dunlin manual 27-10, p. 2"},{"measure":"aileron-down-left","unitSymbol":"\u00B0","low":13,"high":17,"reference":"Dunlin manual 27-10, p. 2"},{"measure":"aileron-up-right","unitSymbol":"\u00B0","low":18,"high":22,"reference":"Dunlin manual 27-10, p. 2"},{"measure":"aileron-down-right","unitSymbol":"\u00B0","low":13,"high":17,"reference":"Dunlin manual 27-10, p. 2"},{"measure":"elevator-up","unitSymbol":"\u00B0","low":26,"high":30,"reference":"Dunlin manual 27-30, p. 2"},{"measure":"elevator-down","unitSymbol":"\u00B0","low":18,"high":22,"reference":"Dunlin manual 27-30, p. 2"},{"measure":"rudder-left","unitSymbol":"\u00B0","low":23,"high":27,"reference":"Dunlin manual 27-20, p. 2"},{"measure":"rudder-right","unitSymbol":"\u00B0","low":23,"high":27,"reference":"Dunlin manual 27-20, p. 2"}]','[{"number":1,"kind":"Tach","fittedOn":"2016-11-25","offset":0.0},{"number":2,"kind":"Landings","fittedOn":"2024-11-26","offset":0}]','2026-11-26','N04QF','PD2-0318','Tach','4318.6','Pellworth Dunlin 2',11,'[{"measures":["aileron-cable-left","aileron-cable-right"],"rows":[{"celsius":-15,"pounds":26},{"celsius":0,"pounds":32},{"celsius":15,"pounds":38},{"celsius":30,"pounds":44},{"celsius":45,"pounds":50}],"tolerancePounds":3,"reference":"Dunlin manual 27-10, p. 5"}]');
CREATE TABLE "AspNetUserClaims" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_AspNetUserClaims" PRIMARY KEY AUTOINCREMENT,
    "UserId" TEXT NOT NULL,
    "ClaimType" TEXT NULL,
    "ClaimValue" TEXT NULL,
    CONSTRAINT "FK_AspNetUserClaims_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
CREATE TABLE "AspNetUserLogins" (
    "LoginProvider" TEXT NOT NULL,
    "ProviderKey" TEXT NOT NULL,
    "ProviderDisplayName" TEXT NULL,
    "UserId" TEXT NOT NULL,
    CONSTRAINT "PK_AspNetUserLogins" PRIMARY KEY ("LoginProvider", "ProviderKey"),
    CONSTRAINT "FK_AspNetUserLogins_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
CREATE TABLE "AspNetUserTokens" (
    "UserId" TEXT NOT NULL,
    "LoginProvider" TEXT NOT NULL,
    "Name" TEXT NOT NULL,
    "Value" TEXT NULL,
    CONSTRAINT "PK_AspNetUserTokens" PRIMARY KEY ("UserId", "LoginProvider", "Name"),
    CONSTRAINT "FK_AspNetUserTokens_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
CREATE TABLE "AspNetUsers" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_AspNetUsers" PRIMARY KEY,
    "PersonId" TEXT NOT NULL,
    "UserName" TEXT NULL,
    "NormalizedUserName" TEXT NULL,
    "Email" TEXT NULL,
    "NormalizedEmail" TEXT NULL,
    "EmailConfirmed" INTEGER NOT NULL,
    "PasswordHash" TEXT NULL,
    "SecurityStamp" TEXT NULL,
    "ConcurrencyStamp" TEXT NULL,
    "PhoneNumber" TEXT NULL,
    "PhoneNumberConfirmed" INTEGER NOT NULL,
    "TwoFactorEnabled" INTEGER NOT NULL,
    "LockoutEnd" TEXT NULL,
    "LockoutEnabled" INTEGER NOT NULL,
    "AccessFailedCount" INTEGER NOT NULL
);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-748D-7A6E-9EC1-462C75065FC6','01A21DBD-7385-7323-8708-A54D6123E21D','orla','ORLA',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','GV6HJB6CJCA3ERWHLZRC57DZLTELZ6U4','b5265467-7ae4-4364-92d9-bd39895268d9',NULL,0,0,NULL,1,0);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-75D4-727A-896C-09FE751C39C8','01A21DBD-7387-7F51-A487-173301FDD0F3','ines','INES',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','3FJMMWVI67M3D5EPL5UTE64TTNMVG644','a54a5bd2-6769-4b55-b884-14cb65df46c8',NULL,0,0,NULL,1,0);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-75DD-762A-A0F6-005435C4F560','01A21DBD-7387-7EDC-B7E6-2B4D4A8E5740','wim','WIM',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','5BB5PZ6ZNQZKW6EX4WZ2UVKYN2ELPFWM','f52cb607-a168-4925-b9bd-7044d546c71b',NULL,0,0,NULL,1,0);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-75DE-7C47-BAB4-22DB908D9C36','01A21DBD-7387-7B9C-915E-CE9FA5A0A13E','tamsin','TAMSIN',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','CNUMCOAPPOPCLPSKOJ4SHBRAUZ57QWMS','19e05f60-d5fb-4a67-abae-c263fcef1108',NULL,0,0,NULL,1,0);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-75E6-7DA5-A287-6F4FC20E7A10','01A21DBD-7387-7161-BC64-6B7261401430','piet','PIET',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','G2HWQVHUTRSCP6UUQEQVHCKVSS5XJBJU','a15806bd-4d88-4115-aff6-102b7a41c2e3',NULL,0,0,NULL,1,0);
INSERT INTO "AspNetUsers" VALUES('01A21DBD-75E8-74DD-B878-ADC8930876CD','01A21DBD-7387-74CA-9B2D-D2B0ECD9D412','perpetua','PERPETUA',NULL,NULL,0,'AQAAAAIAAYagAAAAELSPwlIlH3U5xceBuu55Fvhu8tMPWV/XDPXU06vzfTdR2uuf5MJlaBw0H70/Lm1zjw==','F6EYIVTPYXDHMZFGC3OHOPWEAEPIK3NZ','f6248807-5768-40d5-874d-6f763d74e203',NULL,0,0,NULL,1,0);
CREATE TABLE "BookEntries" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_BookEntries" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "BookId" TEXT NOT NULL,
    "On" TEXT NULL,
    "Hours" TEXT NULL,
    "Text" TEXT NOT NULL,
    "Page" TEXT NOT NULL,
    "Photo" TEXT NULL,
    "By" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    CONSTRAINT "FK_BookEntries_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_BookEntries_LogBooks_BookId" FOREIGN KEY ("BookId") REFERENCES "LogBooks" ("Id") ON DELETE CASCADE
);
INSERT INTO "BookEntries" VALUES('01A21DBD-8BEF-7999-83EB-5EED13B5CEA6','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-8BB8-7D96-BE5D-7F898995ACF9','2012-03-08','1322.4','Volume opened, totals carried over from volume 1.','1',NULL,'01A21DBD-7387-7161-BC64-6B7261401430','2026-11-26T08:00:00.0000000Z');
INSERT INTO "BookEntries" VALUES('01A21DBD-8BF5-78C9-8BB7-33DC87D01A3A','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-8BB8-7D96-BE5D-7F898995ACF9','2015-06-01','1770.3','Annual inspection. Propeller replaced, see its book.','11',NULL,'01A21DBD-7387-7161-BC64-6B7261401430','2026-11-26T08:00:00.0000000Z');
CREATE TABLE "BulletinCases" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_BulletinCases" PRIMARY KEY,
    "Family" TEXT NOT NULL,
    "AircraftId" TEXT NULL,
    "ComponentId" TEXT NULL,
    "Policy" TEXT NULL,
    "Ferry" TEXT NULL,
    "Done" TEXT NOT NULL,
    CONSTRAINT "FK_BulletinCases_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id"),
    CONSTRAINT "FK_BulletinCases_Component_ComponentId" FOREIGN KEY ("ComponentId") REFERENCES "Component" ("Id")
);
INSERT INTO "BulletinCases" VALUES('01A21DBD-A54C-7919-A74B-9027577B84B3','PELLWORTH AERO
PD2-53-02','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'{"kind":"Adopted","reason":"Three of the school\u2019s sisters had corrosion there","by":"01a21dbd-7385-7323-8708-a54d6123e21d","at":"2024-06-30T16:01:25.4873753+00:00"}',NULL,'[{"on":"2026-04-01","hours":4160.2,"revision":"","method":"Part B, borescope","finding":true,"terminating":false,"reference":"airframe book 4, p. 31","by":"01a21dbd-7387-7f51-a487-173301fdd0f3"}]');
INSERT INTO "BulletinCases" VALUES('01A21DBD-A5EA-71E8-8D74-33829E71EEBC','PELLWORTH AERO
PD2-25-04','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'{"kind":"Declined","reason":"No stop has ever slipped; looked at every annual","by":"01a21dbd-7385-7323-8708-a54d6123e21d","at":"2025-04-06T16:01:25.4873753+00:00"}',NULL,'[]');
CREATE TABLE "Bulletins" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Bulletins" PRIMARY KEY,
    "Family" TEXT NOT NULL,
    "Revision" TEXT NOT NULL,
    "Bulletin" TEXT NOT NULL,
    "From" TEXT NOT NULL,
    "By" TEXT NULL,
    "ReceivedAt" TEXT NOT NULL,
    "Changes" INTEGER NOT NULL,
    "Attachments" TEXT NOT NULL
);
INSERT INTO "Bulletins" VALUES('01A21DBD-A2DB-73D0-9609-EEB56CCBD197','PELLWORTH AERO
PD2-25-04','','{
  "format": "mellow-rivet-bulletin",
  "version": 1,
  "issuer": "Pellworth Aero",
  "number": "PD2-25-04",
  "revision": "",
  "kind": "optionalBulletin",
  "subject": "Seat rail stop of a better shape",
  "published": "2024-12-27",
  "effective": "2025-01-06",
  "appliesTo": {
    "fact": "aircraft.model",
    "is": "Pellworth Dunlin 2"
  },
  "compliance": {
    "deadlines": [],
    "repeat": null,
    "afterFinding": null,
    "terminating": null,
    "earlierCounts": false,
    "ferry": null
  },
  "method": "Pellworth PD2-25-04",
  "steps": [],
  "about": null,
  "by": null,
  "approval": null,
  "supersedes": null,
  "kit": null,
  "tools": null,
  "labourHours": null,
  "labourCredit": null,
  "logWording": null,
  "documents": null
}
','simulated service',NULL,'2026-11-20T16:01:25.4873753Z',0,'[]');
INSERT INTO "Bulletins" VALUES('01A21DBD-A2DB-79B4-B852-5C19BCDAB9E3','PELLWORTH AERO
PD2-53-02','','{
  "format": "mellow-rivet-bulletin",
  "version": 1,
  "issuer": "Pellworth Aero",
  "number": "PD2-53-02",
  "revision": "",
  "kind": "mandatoryBulletin",
  "subject": "Spar attachment, corrosion behind the doubler",
  "published": "2024-06-10",
  "effective": "2024-06-20",
  "appliesTo": {
    "fact": "aircraft.model",
    "is": "Pellworth Dunlin 2"
  },
  "compliance": {
    "deadlines": [
      {
        "when": "withinMonths",
        "hours": null,
        "months": 12,
        "from": "effective",
        "date": null
      }
    ],
    "repeat": {
      "hours": null,
      "months": 24
    },
    "afterFinding": {
      "hours": null,
      "months": 12
    },
    "terminating": null,
    "earlierCounts": false,
    "ferry": null
  },
  "method": "Pellworth PD2-53-02, part B",
  "steps": [
    {
      "text": "Look behind both doublers with a borescope",
      "caution": null,
      "measure": null,
      "torque": null
    },
    {
      "text": "Clean and protect what is surface corrosion",
      "caution": null,
      "measure": null,
      "torque": null
    }
  ],
  "about": null,
  "by": null,
  "approval": null,
  "supersedes": null,
  "kit": null,
  "tools": null,
  "labourHours": 3,
  "labourCredit": null,
  "logWording": null,
  "documents": null
}
','simulated service',NULL,'2026-11-20T16:01:25.4873753Z',0,'[]');
CREATE TABLE "Component" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Component" PRIMARY KEY,
    "CompressionRule" TEXT NULL,
    "Ignition" TEXT NULL,
    "Kind" TEXT NOT NULL,
    "LayoutKey" TEXT NULL,
    "MadeOn" TEXT NULL,
    "Name" TEXT NOT NULL,
    "Overhauls" TEXT NOT NULL,
    "OwnFiringOrder" TEXT NULL,
    "PartNumber" TEXT NOT NULL,
    "SerialNumber" TEXT NOT NULL
, "Suits" TEXT NULL);
INSERT INTO "Component" VALUES('01A21DBD-766F-7E98-A0E3-173E9A0C51C7','{"school":"SixtyOfEighty","manualRejectPsi":null,"manualReference":null}','{"top":"Magneto","bottom":"Magneto"}','Engine','flat-four',NULL,'','[{"on":"2019-03-27","ownTime":2890.2,"reference":"release CL-2218"}]',NULL,'TF4-160','TF4-2217',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7675-71F0-983A-0B4968890AD8',NULL,NULL,'Cylinder',NULL,NULL,'','[]',NULL,'','TF4-2217-2',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7675-721E-B674-2267C0824783',NULL,NULL,'Cylinder',NULL,NULL,'','[]',NULL,'','TF4-2217-1',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7675-7237-8C6B-3DFB407DA147',NULL,NULL,'Cylinder',NULL,NULL,'','[]',NULL,'','TF4-2217-3',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7675-7849-8849-EB1DA6623E83',NULL,NULL,'Cylinder',NULL,NULL,'','[]',NULL,'','TF4-2217-4',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7676-7626-AEA1-A3F6D1C5B65C',NULL,NULL,'Magneto',NULL,NULL,'','[]',NULL,'','TF4-2217-r',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7676-76EA-8A8F-447E267DC09D',NULL,NULL,'Propeller',NULL,NULL,'','[]',NULL,'','WB-70355',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7676-7E61-9F91-6C6731FBE2F4',NULL,NULL,'Magneto',NULL,NULL,'','[]',NULL,'','TF4-2217-l',NULL);
INSERT INTO "Component" VALUES('01A21DBD-7F9A-76C9-A5E2-9241CA1FE246',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','202','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9A-7713-88EE-63571721565A',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','201','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9A-77E1-8657-99A3AEABAEA8',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','203','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','206','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9A-7CA9-8DF4-C0C55697D782',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','205','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9A-7F98-B4BA-48F971E01BE0',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','204','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9B-763E-A9B0-B462BE646E29',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','207','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-7F9B-77A5-A4BD-58AB27A99B10',NULL,NULL,'Plug',NULL,NULL,'','[]',NULL,'QK-18M','208','Magneto');
INSERT INTO "Component" VALUES('01A21DBD-81F6-7314-B0E9-2D37676F4F52',NULL,NULL,'Cylinder',NULL,NULL,'','[]',NULL,'TF4-520','TF4-C-9941',NULL);
INSERT INTO "Component" VALUES('01A21DBD-88B6-739D-ADB6-CC14A9D8DAB5',NULL,NULL,'Altimeter',NULL,NULL,'','[]',NULL,'AL-20','A7719',NULL);
INSERT INTO "Component" VALUES('01A21DBD-88B6-7A25-A489-953D2B8D6FD3',NULL,NULL,'LocatorTransmitter',NULL,'2021-03-01','','[]',NULL,'LT-406','LT 30771',NULL);
INSERT INTO "Component" VALUES('01A21DBD-88B6-7A44-BEB0-90747847674C',NULL,NULL,'Battery',NULL,'2022-06-01','','[]',NULL,'BT-25','0622-118',NULL);
INSERT INTO "Component" VALUES('01A21DBD-88B6-7E48-AC41-A10A9B1009AA',NULL,NULL,'Pump',NULL,NULL,'suction pump','[]',NULL,'SP-211','P-40922',NULL);
CREATE TABLE "CompressionTest" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_CompressionTest" PRIMARY KEY,
    "InspectionId" TEXT NOT NULL,
    "EngineId" TEXT NOT NULL,
    "SupplyPsi" REAL NOT NULL,
    "AmbientPsi" REAL NOT NULL,
    "Hot" INTEGER NOT NULL,
    "DayOrificePsi" REAL NULL,
    "CautionReadBy" TEXT NOT NULL,
    "StartedAt" TEXT NOT NULL,
    CONSTRAINT "FK_CompressionTest_Component_EngineId" FOREIGN KEY ("EngineId") REFERENCES "Component" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_CompressionTest_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id") ON DELETE CASCADE
);
CREATE TABLE "Discrepancy" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Discrepancy" PRIMARY KEY,
    "Class" TEXT NOT NULL,
    "ComponentId" TEXT NULL,
    "CorrectedAt" TEXT NULL,
    "CorrectedBy" TEXT NULL,
    "Correction" TEXT NULL,
    "Deferral" TEXT NOT NULL,
    "Disposition" TEXT NOT NULL,
    "Estimate" TEXT NULL,
    "Examination" TEXT NULL,
    "FoundAt" TEXT NOT NULL,
    "FoundBy" TEXT NOT NULL,
    "Grounded" INTEGER NOT NULL,
    "How" TEXT NOT NULL,
    "InspectedAt" TEXT NULL,
    "InspectedBy" TEXT NULL,
    "InspectionId" TEXT NOT NULL,
    "MeasuredWords" TEXT NULL,
    "Notes" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "Photos" TEXT NOT NULL,
    "Pin" TEXT NULL,
    "PlainWords" TEXT NULL,
    "SameAs" TEXT NULL,
    "Sounds" TEXT NOT NULL,
    "Steps" TEXT NOT NULL,
    "TaskId" TEXT NULL,
    "TaskKey" TEXT NULL,
    "Version" INTEGER NOT NULL,
    "What" TEXT NOT NULL,
    "Where" TEXT NOT NULL,
    "ZoneKey" TEXT NOT NULL,
    CONSTRAINT "FK_Discrepancy_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id") ON DELETE CASCADE
);
INSERT INTO "Discrepancy" VALUES('01A21DBD-77C7-708B-99CC-036311B68873','Recommended',NULL,'2017-05-18T20:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','{"action":"Cover resewn.","kind":"Adjusted","reference":"","parts":null,"torque":null}','[]','Done',NULL,NULL,'2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3',0,'Visual',NULL,NULL,'01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,'[]',1,'[]',NULL,NULL,NULL,'[]','[{"to":"Done","by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T20:00:00+00:00","words":null}]',NULL,NULL,1,'Seat cushion torn at the piping, left','','cabin');
INSERT INTO "Discrepancy" VALUES('01A21DBD-77CD-7689-9FD7-F851A662F307','Recommended',NULL,'2017-05-18T20:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','{"action":"Clamp replaced and tightened, checked after the run.","kind":"Adjusted","reference":"","parts":null,"torque":null}','[]','Done',NULL,NULL,'2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3',0,'Visual',NULL,NULL,'01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,'[]',2,'[]',NULL,NULL,NULL,'[]','[{"to":"Done","by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T20:00:00+00:00","words":null}]',NULL,NULL,1,'Oil breather tube clamp loose','','engine');
CREATE TABLE "DueItems" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_DueItems" PRIMARY KEY,
    "AircraftId" TEXT NULL,
    "ComponentId" TEXT NULL,
    "What" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Interval" TEXT NOT NULL,
    "Source" TEXT NOT NULL,
    "DiscrepancyId" TEXT NULL,
    "LabourHours" TEXT NULL,
    "RetiredWhy" TEXT NULL,
    "Done" TEXT NOT NULL,
    "DoneBy" TEXT NOT NULL,
    CONSTRAINT "FK_DueItems_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id"),
    CONSTRAINT "FK_DueItems_Component_ComponentId" FOREIGN KEY ("ComponentId") REFERENCES "Component" ("Id")
);
INSERT INTO "DueItems" VALUES('01A21DBD-88BB-7158-BABB-EF388309BBE6','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'Annual inspection','Inspection','{"everyHours":null,"everyMonths":12,"calendar":"EndOfMonth","graceHours":0,"everyLandings":null,"everyCycles":null,"notAfter":null}','{"standing":"Law","text":"14 CFR 91.409(a), from memory"}',NULL,NULL,NULL,'[{"on":"2025-12-14","hours":4095.8,"wasDueHours":null,"landings":null,"cycles":null,"reference":"25-71"}]','["Annual"]');
INSERT INTO "DueItems" VALUES('01A21DBD-88F5-71C4-844C-4E410FBB6E5E','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'Transponder test','Instrument','{"everyHours":null,"everyMonths":24,"calendar":"EndOfMonth","graceHours":0,"everyLandings":null,"everyCycles":null,"notAfter":null}','{"standing":"Law","text":"14 CFR 91.413, from memory"}',NULL,NULL,NULL,'[{"on":"2024-12-25","hours":3880,"wasDueHours":null,"landings":null,"cycles":null,"reference":"26-A at Tollerby Instruments"}]','[]');
INSERT INTO "DueItems" VALUES('01A21DBD-88F5-7266-AA5E-BF15CFB3F97D','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'Locator transmitter inspection','Locator','{"everyHours":null,"everyMonths":12,"calendar":"EndOfMonth","graceHours":0,"everyLandings":null,"everyCycles":null,"notAfter":null}','{"standing":"Law","text":"14 CFR 91.207(d), from memory"}',NULL,NULL,NULL,'[{"on":"2025-12-14","hours":4095.8,"wasDueHours":null,"landings":null,"cycles":null,"reference":"annual"}]','[]');
INSERT INTO "DueItems" VALUES('01A21DBD-88F5-748E-AB54-F14CFEA98A8A','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'Altimeter, encoder and static system test','Instrument','{"everyHours":null,"everyMonths":24,"calendar":"EndOfMonth","graceHours":0,"everyLandings":null,"everyCycles":null,"notAfter":null}','{"standing":"Law","text":"14 CFR 91.411, under instrument flight rules in controlled airspace, from memory"}',NULL,NULL,NULL,'[{"on":"2025-02-25","hours":3925,"wasDueHours":null,"landings":null,"cycles":null,"reference":"26-A at Tollerby Instruments"}]','[]');
CREATE TABLE "Editions" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Editions" PRIMARY KEY,
    "Key" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "IsDraft" INTEGER NOT NULL,
    "Sheet" TEXT NOT NULL,
    "By" TEXT NULL,
    "At" TEXT NOT NULL,
    "Note" TEXT NOT NULL,
    "Changes" INTEGER NOT NULL
);
CREATE TABLE "EngineLogs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_EngineLogs" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "EngineId" TEXT NOT NULL,
    "Name" TEXT NOT NULL,
    "Sha256" TEXT NOT NULL,
    "Columns" TEXT NOT NULL,
    "AddedBy" TEXT NOT NULL,
    "AddedAt" TEXT NOT NULL,
    "Flights" TEXT NOT NULL,
    CONSTRAINT "FK_EngineLogs_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_EngineLogs_Component_EngineId" FOREIGN KEY ("EngineId") REFERENCES "Component" ("Id") ON DELETE CASCADE
);
CREATE TABLE "Feeds" (
    "Source" TEXT NOT NULL CONSTRAINT "PK_Feeds" PRIMARY KEY,
    "Since" TEXT NOT NULL,
    "AskedAt" TEXT NULL,
    "Said" TEXT NOT NULL
);
INSERT INTO "Feeds" VALUES('simulated service','2026-11-20','2026-11-20T16:01:25.4873753Z','nothing new');
CREATE TABLE "InspectionTask" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_InspectionTask" PRIMARY KEY,
    "InspectionId" TEXT NOT NULL,
    "Order" INTEGER NOT NULL,
    "ZoneKey" TEXT NOT NULL,
    "ZoneTitle" TEXT NOT NULL,
    "Station" TEXT NOT NULL,
    "Book" TEXT NOT NULL,
    "Key" TEXT NOT NULL,
    "Text" TEXT NOT NULL,
    "Reference" TEXT NOT NULL,
    "Caution" TEXT NULL,
    "Measure" TEXT NULL,
    "IsCompression" INTEGER NOT NULL,
    "Verdict" TEXT NOT NULL,
    "Reason" TEXT NULL,
    "By" TEXT NULL,
    "At" TEXT NULL,
    "Version" INTEGER NOT NULL, "ComponentId" TEXT NULL, "InspectedAt" TEXT NULL, "InspectedBy" TEXT NULL, "Kind" TEXT NOT NULL DEFAULT 'Inspect', "Needs" TEXT NOT NULL DEFAULT '[]', "SecondPerson" INTEGER NOT NULL DEFAULT 0, "SheetKey" TEXT NOT NULL DEFAULT '', "TiedTo" TEXT NULL, "Why" TEXT NOT NULL DEFAULT '', "With" TEXT NULL,
    CONSTRAINT "FK_InspectionTask_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id") ON DELETE CASCADE
);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7745-7755-85A9-B62BEE5A0C95','01A21DBD-772F-7883-850B-B850BDD58DBE',0,'run','Engine run','Engine','Engine','run-static','Full throttle, brakes held: static rpm','14 CFR 43.15(c)(2)(i)','Chocks in, area clear, someone watching for people. Never stand in line with the propeller disc.','{"kind":"static-rpm","unit":"rpm","low":null,"high":null,"standing":"Manual","source":"the aircraft\u0027s manual; no limit on file yet","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-70AD-AC99-7DB64B4ECED5','01A21DBD-772F-7883-850B-B850BDD58DBE',72,'tail','Tail','Airframe','Airframe','tail-elevator-down','Elevator travel down','43 App. D (g)',NULL,'{"kind":"elevator-down","unit":"\u00B0","low":null,"high":null,"standing":"Manual","source":"the aircraft\u0027s manual; no limit on file yet","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,NULL,NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-73F0-8F1D-91B5C662C5B2','01A21DBD-772F-7883-850B-B850BDD58DBE',1,'run','Engine run','Engine','Engine','run-idle','Throttle closed: idle rpm','14 CFR 43.15(c)(2)(i)',NULL,'{"kind":"idle-rpm","unit":"rpm","low":null,"high":null,"standing":"Manual","source":"the aircraft\u0027s manual; no limit on file yet","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-75F6-AE31-23F999EA9A61','01A21DBD-772F-7883-850B-B850BDD58DBE',3,'run','Engine run','Engine','Engine','run-mag-right','Run-up, right magneto alone: rpm drop','14 CFR 43.15(c)(2)(ii)',NULL,'{"kind":"mag-drop-right","unit":"rpm","low":null,"high":175,"standing":"Practice","source":"common practice","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-79F7-949C-B82A7DBC2DEC','01A21DBD-772F-7883-850B-B850BDD58DBE',2,'run','Engine run','Engine','Engine','run-mag-left','Run-up, left magneto alone: rpm drop','14 CFR 43.15(c)(2)(ii)',NULL,'{"kind":"mag-drop-left","unit":"rpm","low":null,"high":175,"standing":"Practice","source":"common practice","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-7D96-BCDA-41B0ABFBDDE6','01A21DBD-772F-7883-850B-B850BDD58DBE',5,'run','Engine run','Engine','Engine','run-fuel-pressure','Fuel pressure at cruise rpm','14 CFR 43.15(c)(2)(iii)',NULL,'{"kind":"fuel-pressure","unit":"psi","low":null,"high":null,"standing":"Manual","source":"the aircraft\u0027s manual; no limit on file yet","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','[]',0,'app-d',NULL,'at every inspection',NULL);
INSERT INTO "InspectionTask" VALUES('01A21DBD-7746-7E78-A1F2-5FE6A5B1FBAC','01A21DBD-772F-7883-850B-B850BDD58DBE',4,'run','Engine run','Engine','Engine','run-oil-pressure','Oil pressure, warm, at cruise rpm','14 CFR 43.15(c)(2)(iii)',NULL,'{"kind":"oil-pressure","unit":"psi","low":null,"high":null,"standing":"Manual","source":"the aircraft\u0027s manual; no limit on file yet","method":"Plain"}',0,'Good',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2017-05-18T15:00:00.0000000Z',1,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,NULL,'Measure','["EngineHot"]',0,'app-d',NULL,'at every inspection',NULL);
CREATE TABLE "Inspections" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Inspections" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "Arrival" TEXT NOT NULL,
    "ForeignObjects" TEXT NOT NULL,
    "House" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "LeftOut" TEXT NOT NULL,
    "Looks" TEXT NOT NULL,
    "NotDue" TEXT NOT NULL,
    "OpenedOn" TEXT NOT NULL,
    "Sheets" TEXT NOT NULL,
    "Squawks" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Tags" TEXT NOT NULL,
    "TimeInService" TEXT NOT NULL,
    "ToolsOut" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "WitnessMarks" TEXT NOT NULL,
    "WorkOrder" TEXT NOT NULL, "CarriedMarks" TEXT NOT NULL DEFAULT '[]', "BenchChecks" TEXT NOT NULL DEFAULT '[]', "BenchedMagnetos" TEXT NOT NULL DEFAULT '[]', "FilterCuts" TEXT NOT NULL DEFAULT '[]', "PlugMarks" TEXT NOT NULL DEFAULT '[]', "Bulletins" TEXT NOT NULL DEFAULT '[]', "Revision" INTEGER NOT NULL DEFAULT 0,
    CONSTRAINT "FK_Inspections_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE
);
INSERT INTO "Inspections" VALUES('01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-766D-782A-AAE3-3E489BFA7412','{"round":[],"cameInWith":[],"onBoard":null,"books":null}','[]','{"inspector":"AirworthinessItems","firstLook":true,"askFirst":false,"preAuthorised":0,"airworthinessUnasked":false,"labourRate":95,"money":"$"}','Annual','[]','[{"zoneKey":"engine","title":"Engine and cowling","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:00:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:10:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:10:00+00:00"},"takenBy":null},{"zoneKey":"propeller","title":"Propeller","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:06:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:19:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:19:00+00:00"},"takenBy":null},{"zoneKey":"cabin","title":"Cabin and cockpit","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:12:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:28:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:28:00+00:00"},"takenBy":null},{"zoneKey":"left-wing","title":"Left wing","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:18:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:37:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:37:00+00:00"},"takenBy":null},{"zoneKey":"right-wing","title":"Right wing","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:24:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:46:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:46:00+00:00"},"takenBy":null},{"zoneKey":"tail-cone","title":"Fuselage and tail cone","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:30:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T10:55:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T12:55:00+00:00"},"takenBy":null},{"zoneKey":"tail","title":"Tail","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:36:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T11:04:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T13:04:00+00:00"},"takenBy":null},{"zoneKey":"gear","title":"Landing gear","first":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T09:42:00+00:00"},"firstMissed":null,"cleaned":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T11:13:00+00:00"},"second":{"by":"01a21dbd-7387-7f51-a487-173301fdd0f3","at":"2017-05-18T13:13:00+00:00"},"takenBy":null}]','[]','2017-05-18','[{"key":"app-d","title":"43 Appendix D scope","version":3,"hours":15.00}]','[]','SignedAirworthy','[]','2122.0','[]',3,'[]','17-17','[]','[]','[]','[]','[]','[]',0);
CREATE TABLE "Installations" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Installations" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "ComponentId" TEXT NOT NULL,
    "ParentId" TEXT NULL,
    "Position" TEXT NOT NULL,
    "InstalledOn" TEXT NULL,
    "InstalledAt" TEXT NOT NULL,
    "OwnTimeThen" TEXT NULL,
    "RemovedOn" TEXT NULL,
    "RemovedAt" TEXT NULL,
    "RemovedWhy" TEXT NULL,
    CONSTRAINT "FK_Installations_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Installations_Component_ComponentId" FOREIGN KEY ("ComponentId") REFERENCES "Component" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Installations_Component_ParentId" FOREIGN KEY ("ParentId") REFERENCES "Component" ("Id")
);
INSERT INTO "Installations" VALUES('01A21DBD-7674-71A4-9020-65E5814B2484','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7',NULL,'',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7675-716E-B71A-4A6AF9B6511E','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-7849-8849-EB1DA6623E83','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7675-71EE-83B7-D1624AFF8EC1','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-7237-8C6B-3DFB407DA147','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7675-769E-9A4E-42B3AC94C9EC','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-71F0-983A-0B4968890AD8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2',NULL,'0','0','2022-08-14','3325.4','low compression, exhaust valve');
INSERT INTO "Installations" VALUES('01A21DBD-7675-7990-A992-C4BD3E0BA098','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-721E-B674-2267C0824783','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7676-7BEF-B07A-5BAC1547D9F6','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7676-76EA-8A8F-447E267DC09D',NULL,'',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7676-7C68-9DCA-F07AC04F045B','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7676-7626-AEA1-A3F6D1C5B65C','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','right',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7676-7F92-B737-10DE89D46926','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7676-7E61-9F91-6C6731FBE2F4','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','left',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-7196-9051-0CCACD04D564','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 1B');
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-73EB-8694-A774E43D87AE','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 2B');
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-7AE3-BA2C-CFBA85689A5D','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 1T');
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-7B9E-9C5E-506E3AEC8C03','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 3T');
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-7BE0-A13E-62BFE5F611DF','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 2T');
INSERT INTO "Installations" VALUES('01A21DBD-7F9A-7CEE-A429-4E8FA9D97A50','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 4T');
INSERT INTO "Installations" VALUES('01A21DBD-7F9B-7207-A2D1-763EF8F38A58','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 4B');
INSERT INTO "Installations" VALUES('01A21DBD-7F9B-72E6-A82C-63FC3AF6DA6E','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2021-03-10','2999.8','0','2022-02-21','3218.0','moved to 3B');
INSERT INTO "Installations" VALUES('01A21DBD-8154-728B-9FE7-8A5175F204F4','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 2B');
INSERT INTO "Installations" VALUES('01A21DBD-8154-73AC-BEFC-3E4C84C83D67','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 1B');
INSERT INTO "Installations" VALUES('01A21DBD-8154-752D-91C2-95A6A0D32C4A','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 4B');
INSERT INTO "Installations" VALUES('01A21DBD-8154-7710-8019-FA0B9FB2DACA','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 4T');
INSERT INTO "Installations" VALUES('01A21DBD-8154-79FE-91F1-CB25A0541689','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 2T');
INSERT INTO "Installations" VALUES('01A21DBD-8154-7E2C-9E24-7BA6129455D3','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 3T');
INSERT INTO "Installations" VALUES('01A21DBD-8154-7F9E-8DC0-E1CA60D77BD6','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 3B');
INSERT INTO "Installations" VALUES('01A21DBD-8154-7FE7-B726-476933D43F29','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2022-02-21','3218.0','218.2','2023-02-04','3436.2','moved to 1T');
INSERT INTO "Installations" VALUES('01A21DBD-820A-726C-BD23-5D4F078A9873','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 4T');
INSERT INTO "Installations" VALUES('01A21DBD-820A-7303-8FC2-D5315AC4FC0F','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 4B');
INSERT INTO "Installations" VALUES('01A21DBD-820A-7590-A183-BE5FAB2854E2','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 2B');
INSERT INTO "Installations" VALUES('01A21DBD-820A-76F6-A07E-048DDAD64EAD','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 3B');
INSERT INTO "Installations" VALUES('01A21DBD-820A-77C2-A1C0-D70ED050C75C','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 2T');
INSERT INTO "Installations" VALUES('01A21DBD-820A-78B1-B22A-8FA8869873E8','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 1B');
INSERT INTO "Installations" VALUES('01A21DBD-820A-7901-9A15-5935FC979341','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 1T');
INSERT INTO "Installations" VALUES('01A21DBD-820A-7B1F-95BC-39345D1DF4FD','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2023-02-04','3436.2','436.4','2024-01-18','3654.4','moved to 3T');
INSERT INTO "Installations" VALUES('01A21DBD-81F6-7E80-B57F-82F0DB574915','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-81F6-7314-B0E9-2D37676F4F52','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2','2022-08-14','3325.4','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-82C5-71CA-8C8D-65506133739E','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 4T');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7209-B309-EAB6A11EA9A8','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 3B');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7819-A6C5-FD6FEB5724DC','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 4B');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-78E9-A0B9-9DAC16F23BAF','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 2T');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7C6B-A0CD-ED13481CBE56','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 2B');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7D3F-9186-879FC3E6C677','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 3T');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7ED6-9056-40EA82754E35','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 1B');
INSERT INTO "Installations" VALUES('01A21DBD-82C5-7FA4-ABA8-50AE405949BD','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2024-01-18','3654.4','654.6','2024-12-31','3877.6','moved to 1T');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-749A-9343-0CFC6FC8AFE5','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 4B');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-78C3-BA8D-D368ABCB5416','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 1B');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-794E-8290-6914E2A53CAD','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 4T');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-7B1F-81F2-06AA3B01B322','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 2B');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-7C4F-B405-4B3DEB9A2E28','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 2T');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-7C87-81B2-3A1BDD417383','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 3T');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-7C8D-91AD-EBAAFFE95DE5','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 1T');
INSERT INTO "Installations" VALUES('01A21DBD-83AB-7C90-938C-AE4A4A05E929','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2024-12-31','3877.6','877.8','2025-12-14','4095.8','moved to 3B');
INSERT INTO "Installations" VALUES('01A21DBD-846E-748A-A0A8-31FA0B5D9008','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7CA9-8DF4-C0C55697D782','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2B','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-75B5-BEBC-5F490F0895D0','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7713-88EE-63571721565A','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','2T','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-75F4-A2D0-9F56F65CB194','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-77E1-8657-99A3AEABAEA8','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4T','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-7658-8B59-1874BBAB97AE','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-77A5-A4BD-58AB27A99B10','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3B','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-7CFB-A6E5-B1BE2DEC0345','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7B3F-9D32-1E6AEF8896BC','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1B','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-7D0C-86BE-CE29259FAD77','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-76C9-A5E2-9241CA1FE246','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','1T','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-7DD5-A97D-8ECB646634F5','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9A-7F98-B4BA-48F971E01BE0','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','3T','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-846E-7FB5-B805-4B54F2DFB26C','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7F9B-763E-A9B0-B462BE646E29','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','4B','2025-12-14','4095.8','1096.0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-88B6-70F9-BA53-F0A8FBAC7FC2','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-88B6-7A25-A489-953D2B8D6FD3',NULL,'',NULL,'3104','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-88B6-71D9-9022-5A9F81FF2322','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-88B6-7E48-AC41-A10A9B1009AA','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','',NULL,'3890','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-88B6-7AF3-AB49-C24DBAEB0CC6','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-88B6-739D-ADB6-CC14A9D8DAB5',NULL,'left',NULL,'0','0',NULL,NULL,NULL);
INSERT INTO "Installations" VALUES('01A21DBD-88B6-7D1F-951A-C8256900E0DC','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-88B6-7A44-BEB0-90747847674C',NULL,'',NULL,'3660','0',NULL,NULL,NULL);
CREATE TABLE "LogBooks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_LogBooks" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Title" TEXT NOT NULL,
    "FirstOn" TEXT NULL,
    "LastOn" TEXT NULL,
    "IsLost" INTEGER NOT NULL,
    CONSTRAINT "FK_LogBooks_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE
);
INSERT INTO "LogBooks" VALUES('01A21DBD-8BB8-70FB-BF92-8AD3E7ECF675','01A21DBD-766D-782A-AAE3-3E489BFA7412','Engine','Engine','2007-09-14',NULL,0);
INSERT INTO "LogBooks" VALUES('01A21DBD-8BB8-7B8E-811E-43D11A4E41C4','01A21DBD-766D-782A-AAE3-3E489BFA7412','Propeller','Propeller','2015-06-01',NULL,0);
INSERT INTO "LogBooks" VALUES('01A21DBD-8BB8-7D96-BE5D-7F898995ACF9','01A21DBD-766D-782A-AAE3-3E489BFA7412','Airframe','Airframe, volume 2','2012-03-08',NULL,0);
INSERT INTO "LogBooks" VALUES('01A21DBD-8BB9-7322-8B18-42E4E2C1D636','01A21DBD-766D-782A-AAE3-3E489BFA7412','WeightSheet','Weighing of 2018','2018-02-20','2018-02-20',0);
INSERT INTO "LogBooks" VALUES('01A21DBD-8BB9-7B09-87FE-A80B16A3D69C','01A21DBD-766D-782A-AAE3-3E489BFA7412','EquipmentList','Equipment list of 2021','2021-04-02','2021-04-02',0);
CREATE TABLE "MeterReadings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_MeterReadings" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "Meter" INTEGER NOT NULL,
    "Kind" TEXT NOT NULL,
    "On" TEXT NOT NULL,
    "Shown" TEXT NOT NULL,
    "Total" TEXT NOT NULL,
    "Source" TEXT NOT NULL,
    CONSTRAINT "FK_MeterReadings_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE
);
INSERT INTO "MeterReadings" VALUES('01A21DBD-770E-7497-898D-EA90CEDC0CFC','01A21DBD-766D-782A-AAE3-3E489BFA7412',1,'Tach','2016-11-25','2010.4','2010.4','');
INSERT INTO "MeterReadings" VALUES('01A21DBD-772F-7F5A-96F0-DAE6578CD97A','01A21DBD-766D-782A-AAE3-3E489BFA7412',1,'Tach','2017-05-18','2122.0','2122.0','');
INSERT INTO "MeterReadings" VALUES('01A21DBD-7DD5-729A-80E9-93E727B26E01','01A21DBD-766D-782A-AAE3-3E489BFA7412',1,'Tach','2018-05-01','2340.2','2340.2','');
INSERT INTO "MeterReadings" VALUES('01A21DBD-7DD5-7A78-99CE-8F22EA3AF9D2','01A21DBD-766D-782A-AAE3-3E489BFA7412',1,'Tach','2017-11-08','2233.6','2233.6','');
INSERT INTO "MeterReadings" VALUES('01A21DBD-8899-737C-B526-DDFF521A4505','01A21DBD-766D-782A-AAE3-3E489BFA7412',1,'Tach','2026-11-26','4318.6','4318.6','');
INSERT INTO "MeterReadings" VALUES('01A21DBD-88FB-7D76-975A-FC4402C9D465','01A21DBD-766D-782A-AAE3-3E489BFA7412',2,'Landings','2026-11-26','12960.0','12960.0','TB');
CREATE TABLE "OwnerLinks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_OwnerLinks" PRIMARY KEY,
    "InspectionId" TEXT NOT NULL,
    "TokenHash" TEXT NOT NULL,
    "SentTo" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    "Ends" TEXT NOT NULL,
    "RevokedAt" TEXT NULL,
    "OpenedAt" TEXT NULL,
    CONSTRAINT "FK_OwnerLinks_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id") ON DELETE CASCADE
);
CREATE TABLE "People" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_People" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Initials" TEXT NOT NULL,
    "Certificates" TEXT NOT NULL,
    "Roles" TEXT NOT NULL
, "CalendarKeyHash" TEXT NULL);
INSERT INTO "People" VALUES('01A21DBD-7385-7323-8708-A54D6123E21D','Orla Hob','OH','[{"kind":"InspectionAuthorization","number":"QF 30117","onlySerial":null},{"kind":"Mechanic","number":"QF 30117","onlySerial":null}]','["Inspector","ShopAdmin"]',NULL);
INSERT INTO "People" VALUES('01A21DBD-7387-7161-BC64-6B7261401430','Piet Oduvane','PO','[]','["Assistant"]',NULL);
INSERT INTO "People" VALUES('01A21DBD-7387-74CA-9B2D-D2B0ECD9D412','Perpetua Lorne','PL','[{"kind":"RepairmanExperimentalBuilder","number":"QF 60031","onlySerial":"OK-07"}]','["Owner"]',NULL);
INSERT INTO "People" VALUES('01A21DBD-7387-7B9C-915E-CE9FA5A0A13E','Tamsin Bexwell','TB','[]','["Assistant"]',NULL);
INSERT INTO "People" VALUES('01A21DBD-7387-7EDC-B7E6-2B4D4A8E5740','Wim Raskelf','WR','[{"kind":"RepairmanLightSportMaintenance","number":"QF 52240","onlySerial":null}]','["Repairman"]',NULL);
INSERT INTO "People" VALUES('01A21DBD-7387-7F51-A487-173301FDD0F3','Ines Calloway','IC','[{"kind":"Mechanic","number":"QF 41882","onlySerial":null}]','["Mechanic"]',NULL);
CREATE TABLE "Postings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Postings" PRIMARY KEY,
    "At" TEXT NOT NULL
);
CREATE TABLE "Readings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Readings" PRIMARY KEY,
    "AircraftId" TEXT NOT NULL,
    "ComponentId" TEXT NULL,
    "Kind" TEXT NOT NULL,
    "Position" TEXT NOT NULL,
    "Value" REAL NOT NULL,
    "UnitSymbol" TEXT NOT NULL,
    "Conditions" TEXT NOT NULL,
    "TimeInService" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    "PersonId" TEXT NOT NULL,
    "InspectionId" TEXT NULL,
    "TaskId" TEXT NULL,
    "CompressionTestId" TEXT NULL,
    CONSTRAINT "FK_Readings_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Readings_Component_ComponentId" FOREIGN KEY ("ComponentId") REFERENCES "Component" ("Id"),
    CONSTRAINT "FK_Readings_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id")
);
INSERT INTO "Readings" VALUES('01A21DBD-77C3-742D-9EDE-1BD5D615C12D','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-71F0-983A-0B4968890AD8','compression','2',77.0,'psi','{"hot":true,"supplyPsi":80,"ambientPsi":14.7,"dayOrificePsi":null,"leak":"None","secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:02:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77C3-7A3A-944E-C7BCEF4E3E09','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-7849-8849-EB1DA6623E83','compression','4',77.0,'psi','{"hot":true,"supplyPsi":80,"ambientPsi":14.7,"dayOrificePsi":null,"leak":"None","secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:04:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77C3-7BAF-9B23-C4F874538079','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-7237-8C6B-3DFB407DA147','compression','3',78.0,'psi','{"hot":true,"supplyPsi":80,"ambientPsi":14.7,"dayOrificePsi":null,"leak":"None","secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:03:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77C3-7C5A-A795-7AB2EB30D077','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-7675-721E-B674-2267C0824783','compression','1',78.0,'psi','{"hot":true,"supplyPsi":80,"ambientPsi":14.7,"dayOrificePsi":null,"leak":"None","secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:01:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE',NULL,NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D1-75B3-A6BD-431A476D4D42','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','static-rpm','run',2342.0,'rpm','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7745-7755-85A9-B62BEE5A0C95',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D7-70AA-A83D-858E1A1195A4','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','mag-drop-right','run',114.0,'rpm','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-75F6-AE31-23F999EA9A61',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D7-7565-BC57-4E71CB6353BA','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','idle-rpm','run',682.0,'rpm','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-73F0-8F1D-91B5C662C5B2',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D7-791D-BE03-D628F012424B','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','oil-pressure','run',69.0,'psi','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-7E78-A1F2-5FE6A5B1FBAC',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D7-79EB-8913-9F29CC9767F0','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','mag-drop-left','run',102.0,'rpm','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-79F7-949C-B82A7DBC2DEC',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77D7-7DA2-862C-2A368FD0D4A5','01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-766F-7E98-A0E3-173E9A0C51C7','fuel-pressure','run',3.9,'psi','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-7D96-BCDA-41B0ABFBDDE6',NULL);
INSERT INTO "Readings" VALUES('01A21DBD-77E9-73FE-A50C-864AC421BD9E','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'elevator-down','tail',19.6,'°','{"hot":null,"supplyPsi":null,"ambientPsi":null,"dayOrificePsi":null,"leak":null,"secondTry":false,"celsius":null,"wrench":null,"feet":null}','2122.0','2017-05-18T15:00:00.0000000Z','01A21DBD-7387-7F51-A487-173301FDD0F3','01A21DBD-772F-7883-850B-B850BDD58DBE','01A21DBD-7746-70AD-AC99-7DB64B4ECED5',NULL);
CREATE TABLE "Shop" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_Shop" PRIMARY KEY,
    "Rules" TEXT NOT NULL
);
INSERT INTO "Shop" VALUES(1,'{"inspector":"AirworthinessItems","firstLook":true,"askFirst":false,"preAuthorised":0,"airworthinessUnasked":false,"labourRate":95,"money":"$"}');
CREATE TABLE "SignedRecords" (
    "Number" INTEGER NOT NULL CONSTRAINT "PK_SignedRecords" PRIMARY KEY AUTOINCREMENT,
    "AircraftId" TEXT NOT NULL,
    "InspectionId" TEXT NOT NULL,
    "Book" TEXT NOT NULL,
    "Json" TEXT NOT NULL,
    "PreviousHash" TEXT NOT NULL,
    "Hash" TEXT NOT NULL,
    "SignedAt" TEXT NOT NULL,
    CONSTRAINT "FK_SignedRecords_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_SignedRecords_Inspections_InspectionId" FOREIGN KEY ("InspectionId") REFERENCES "Inspections" ("Id") ON DELETE CASCADE
);
INSERT INTO "SignedRecords" VALUES(1,'01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-772F-7883-850B-B850BDD58DBE','Airframe','{"aircraftId":"01a21dbd-766d-782a-aae3-3e489bfa7412","aircraftTime":"2122.0 h","airworthy":true,"book":"Airframe","certificate":"mechanic with inspection authorization, QF 30117","date":"2017-05-18","extent":"annual, worksheet app-d version 3, 92 tasks","inspectionId":"01a21dbd-772f-7883-850b-b850bdd58dbe","item":"Airframe","record":"1","registration":"N04QF","rulePack":"us 2026-01-01","serial":"PD2-0318","signedAt":"2017-05-18T23:00:00.0000000Z","signedBy":"Orla Hob","statement":"I certify that this aircraft has been inspected in accordance with an annual inspection and was determined to be in airworthy condition.","statementSource":"14 CFR 43.11(a), from memory","timeInService":"2122.0 h","title":"Airframe entry","type":"Pellworth Dunlin 2","work":["Seat cushion torn at the piping, left: Cover resewn."],"workOrder":"17-17"}','0000000000000000000000000000000000000000000000000000000000000000','c0a2a46a10a294ec0ee62e71b681e9af64ef6e54ec7e3b192cd1d41c005bd91d','2017-05-18T23:00:00.0000000Z');
INSERT INTO "SignedRecords" VALUES(2,'01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-772F-7883-850B-B850BDD58DBE','Engine','{"aircraftId":"01a21dbd-766d-782a-aae3-3e489bfa7412","aircraftTime":"2122.0 h","airworthy":true,"book":"Engine","certificate":"mechanic with inspection authorization, QF 30117","date":"2017-05-18","extent":"annual, worksheet app-d version 3, 92 tasks","inspectionId":"01a21dbd-772f-7883-850b-b850bdd58dbe","item":"Engine","record":"2","registration":"N04QF","rulePack":"us 2026-01-01","serial":"TF4-2217","signedAt":"2017-05-18T23:00:00.0000000Z","signedBy":"Orla Hob","statement":"I certify that this engine has been inspected in accordance with an annual inspection and was determined to be in airworthy condition.","statementSource":"14 CFR 43.11(a), from memory","timeInService":"2122.0 h","title":"Engine entry","type":"Pellworth Dunlin 2","work":["Oil breather tube clamp loose: Clamp replaced and tightened, checked after the run."],"workOrder":"17-17"}','c0a2a46a10a294ec0ee62e71b681e9af64ef6e54ec7e3b192cd1d41c005bd91d','cd5174f0bd57f562b937dc57f9f38e4ad13bed7f685e15da0816ca2169871f85','2017-05-18T23:00:00.0000000Z');
INSERT INTO "SignedRecords" VALUES(3,'01A21DBD-766D-782A-AAE3-3E489BFA7412','01A21DBD-772F-7883-850B-B850BDD58DBE','Propeller','{"aircraftId":"01a21dbd-766d-782a-aae3-3e489bfa7412","aircraftTime":"2122.0 h","airworthy":true,"book":"Propeller","certificate":"mechanic with inspection authorization, QF 30117","date":"2017-05-18","extent":"annual, worksheet app-d version 3, 92 tasks","inspectionId":"01a21dbd-772f-7883-850b-b850bdd58dbe","item":"Propeller","record":"3","registration":"N04QF","rulePack":"us 2026-01-01","serial":"WB-70355","signedAt":"2017-05-18T23:00:00.0000000Z","signedBy":"Orla Hob","statement":"I certify that this propeller has been inspected in accordance with an annual inspection and was determined to be in airworthy condition.","statementSource":"14 CFR 43.11(a), from memory","timeInService":"2122.0 h","title":"Propeller entry","type":"Pellworth Dunlin 2","work":[],"workOrder":"17-17"}','cd5174f0bd57f562b937dc57f9f38e4ad13bed7f685e15da0816ca2169871f85','2540cc1cc3449d74b38e4b31d38db6b25664247a48e66ff9b538a8e8cd058cc8','2017-05-18T23:00:00.0000000Z');
CREATE TABLE "StatedFacts" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_StatedFacts" PRIMARY KEY,
    "AircraftId" TEXT NULL,
    "ComponentId" TEXT NULL,
    "Key" TEXT NOT NULL,
    "Value" TEXT NOT NULL,
    "Photo" TEXT NULL,
    "By" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    CONSTRAINT "FK_StatedFacts_Aircraft_AircraftId" FOREIGN KEY ("AircraftId") REFERENCES "Aircraft" ("Id"),
    CONSTRAINT "FK_StatedFacts_Component_ComponentId" FOREIGN KEY ("ComponentId") REFERENCES "Component" ("Id")
);
INSERT INTO "StatedFacts" VALUES('01A21DBD-A4EC-71DC-85B1-11D7FCC29FDA',NULL,'01A21DBD-766F-7E98-A0E3-173E9A0C51C7','certified','yes','{"sha256":"3f95b2742876368a135d66b823a4a602dd27fe750e964487eca896456f418308","width":960,"height":720,"takenAt":null,"addedAt":"2026-11-27T16:01:37.5161345+00:00","marks":null,"measured":[]}','01A21DBD-7387-7F51-A487-173301FDD0F3','2026-02-10T16:01:25.4873753Z');
INSERT INTO "StatedFacts" VALUES('01A21DBD-A4EC-74AC-A446-EAB887261E40','01A21DBD-766D-782A-AAE3-3E489BFA7412',NULL,'made','1998-04-17',NULL,'01A21DBD-7387-7F51-A487-173301FDD0F3','2026-02-10T16:01:25.4873753Z');
CREATE TABLE "Tools" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Tools" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Number" TEXT NOT NULL,
    "IsTorqueWrench" INTEGER NOT NULL,
    "CalibratedUntil" TEXT NULL,
    "LengthInches" REAL NULL,
    "IsRetired" INTEGER NOT NULL
);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7139-97B2-50B3B0D82C1D','Screwdriver, long, cross','S-21',0,NULL,NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7188-B777-A372A6C714A3','Cable tensiometer','G-02',0,'2027-08-27',NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7343-8598-B02669B54575','Torque wrench 20–100 ft-lb','T-07',1,'2026-10-27',18.0,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-77EF-B940-D927040E5943','Torch, headband','L-03',0,NULL,NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7866-8459-D2630E30C6B8','Mirror, long','M-11',0,NULL,NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-78D5-8677-9F0ECC04CD27','Torque wrench 150–750 in-lb','T-09',1,'2027-03-27',12.0,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-78F8-AE3C-749B9247A80E','Safety-wire pliers','P-05',0,NULL,NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7904-98FA-A7A36C4088F4','Torque wrench 50–250 in-lb','T-04',1,'2027-06-27',10.0,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7B02-BFB1-BA7EAA1825E7','Socket set 1/4, 24 pieces','K-02',0,NULL,NULL,0);
INSERT INTO "Tools" VALUES('01A21DBD-75F2-7B33-B8BD-EBB60F3D5D3C','Borescope','B-01',0,NULL,NULL,0);
CREATE TABLE "Whereabouts" (
    "PersonId" TEXT NOT NULL,
    "InspectionId" TEXT NOT NULL,
    "TaskId" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    CONSTRAINT "PK_Whereabouts" PRIMARY KEY ("PersonId", "InspectionId")
);
CREATE TABLE "__EFMigrationsHistory" (
    "MigrationId" TEXT NOT NULL CONSTRAINT "PK___EFMigrationsHistory" PRIMARY KEY,
    "ProductVersion" TEXT NOT NULL
);
INSERT INTO "__EFMigrationsHistory" VALUES('20261123124816_FirstWalk','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261123150222_AircraftFile','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261123150239_AircraftFileData','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261123164109_FileRevision','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261123181028_TheWalk','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261123222701_FixList','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261124023338_EngineStation','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261124031352_EngineLogs','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261125083538_Bulletins','10.0.15');
INSERT INTO "__EFMigrationsHistory" VALUES('20261125133255_InspectionRevision','10.0.15');
CREATE TABLE "__EFMigrationsLock" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK___EFMigrationsLock" PRIMARY KEY,
    "Timestamp" TEXT NOT NULL
);
CREATE INDEX "IX_AspNetUserClaims_UserId" ON "AspNetUserClaims" ("UserId");
CREATE INDEX "IX_AspNetUserLogins_UserId" ON "AspNetUserLogins" ("UserId");
CREATE INDEX "EmailIndex" ON "AspNetUsers" ("NormalizedEmail");
CREATE UNIQUE INDEX "IX_AspNetUsers_PersonId" ON "AspNetUsers" ("PersonId");
CREATE UNIQUE INDEX "UserNameIndex" ON "AspNetUsers" ("NormalizedUserName");
CREATE INDEX "IX_CompressionTest_EngineId" ON "CompressionTest" ("EngineId");
CREATE INDEX "IX_CompressionTest_InspectionId" ON "CompressionTest" ("InspectionId");
CREATE INDEX "IX_InspectionTask_InspectionId" ON "InspectionTask" ("InspectionId");
CREATE INDEX "IX_Readings_AircraftId_Kind" ON "Readings" ("AircraftId", "Kind");
CREATE INDEX "IX_Readings_ComponentId" ON "Readings" ("ComponentId");
CREATE INDEX "IX_Readings_InspectionId" ON "Readings" ("InspectionId");
CREATE INDEX "IX_SignedRecords_AircraftId" ON "SignedRecords" ("AircraftId");
CREATE INDEX "IX_SignedRecords_InspectionId" ON "SignedRecords" ("InspectionId");
CREATE INDEX "IX_People_CalendarKeyHash" ON "People" ("CalendarKeyHash");
CREATE INDEX "IX_BookEntries_AircraftId_On" ON "BookEntries" ("AircraftId", "On");
CREATE INDEX "IX_BookEntries_BookId" ON "BookEntries" ("BookId");
CREATE INDEX "IX_DueItems_AircraftId" ON "DueItems" ("AircraftId");
CREATE INDEX "IX_DueItems_ComponentId" ON "DueItems" ("ComponentId");
CREATE INDEX "IX_Installations_AircraftId" ON "Installations" ("AircraftId");
CREATE INDEX "IX_Installations_ComponentId" ON "Installations" ("ComponentId");
CREATE INDEX "IX_Installations_ParentId" ON "Installations" ("ParentId");
CREATE INDEX "IX_LogBooks_AircraftId" ON "LogBooks" ("AircraftId");
CREATE INDEX "IX_MeterReadings_AircraftId_Kind_On" ON "MeterReadings" ("AircraftId", "Kind", "On");
CREATE INDEX "IX_Component_SerialNumber" ON "Component" ("SerialNumber");
CREATE UNIQUE INDEX "IX_Aircraft_Registration" ON "Aircraft" ("Registration");
CREATE UNIQUE INDEX "IX_Editions_Key_Version" ON "Editions" ("Key", "Version");
CREATE INDEX "IX_Inspections_AircraftId" ON "Inspections" ("AircraftId");
CREATE UNIQUE INDEX "IX_Inspections_WorkOrder" ON "Inspections" ("WorkOrder");
CREATE INDEX "IX_OwnerLinks_InspectionId" ON "OwnerLinks" ("InspectionId");
CREATE UNIQUE INDEX "IX_OwnerLinks_TokenHash" ON "OwnerLinks" ("TokenHash");
CREATE UNIQUE INDEX "IX_Discrepancy_InspectionId_Number" ON "Discrepancy" ("InspectionId", "Number");
CREATE INDEX "IX_Discrepancy_SameAs" ON "Discrepancy" ("SameAs");
CREATE INDEX "IX_EngineLogs_AircraftId" ON "EngineLogs" ("AircraftId");
CREATE INDEX "IX_EngineLogs_EngineId" ON "EngineLogs" ("EngineId");
CREATE INDEX "IX_BulletinCases_AircraftId" ON "BulletinCases" ("AircraftId");
CREATE INDEX "IX_BulletinCases_ComponentId" ON "BulletinCases" ("ComponentId");
CREATE UNIQUE INDEX "IX_BulletinCases_Family_AircraftId_ComponentId" ON "BulletinCases" ("Family", "AircraftId", "ComponentId");
CREATE UNIQUE INDEX "IX_Bulletins_Family_Revision" ON "Bulletins" ("Family", "Revision");
CREATE INDEX "IX_StatedFacts_AircraftId" ON "StatedFacts" ("AircraftId");
CREATE INDEX "IX_StatedFacts_ComponentId" ON "StatedFacts" ("ComponentId");
CREATE TRIGGER signed_records_never_change BEFORE UPDATE ON SignedRecords
BEGIN SELECT RAISE(ABORT, 'A signed record never changes; correct it by a new entry.'); END;
CREATE TRIGGER signed_records_never_go BEFORE DELETE ON SignedRecords
BEGIN SELECT RAISE(ABORT, 'A signed record is never deleted.'); END;
DELETE FROM "sqlite_sequence";
INSERT INTO "sqlite_sequence" VALUES('SignedRecords',3);
COMMIT;
