namespace MellowRivet.Core.Records;

/// <summary>Which book a record goes into. The discrepancy list is handed to the owner with the unairworthy statement.</summary>
public enum Book { Airframe, Engine, Propeller, DiscrepancyList }
