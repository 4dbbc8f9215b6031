namespace MellowRivet.Core.Records;

/// <summary>
/// Which book a record goes into. The discrepancy list is handed to the owner with the unairworthy statement; the status of
/// bulletins stays with the aircraft's papers.
/// </summary>
public enum Book { Airframe = 1, Engine, Propeller, DiscrepancyList, BulletinStatus }
