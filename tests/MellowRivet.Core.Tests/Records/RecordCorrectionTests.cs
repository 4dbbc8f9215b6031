using System.Text.Json.Nodes;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>A mistake in a signed entry is put right by a new one that names it.</summary>
public class RecordCorrectionTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Signer signer = new(Fixture.Inspector, Fixture.Inspector.Certificates[0]);
    private readonly SignedRecord engine;

    public RecordCorrectionTests()
    {
        var inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
        SignedRecord? last = null;
        foreach (var draft in RecordWriter.Draft(Fixture.Close(inspection, aircraft), signer))
            last = draft.Book == Book.Propeller ? last
                : SignedRecord.After(last, aircraft.Id, inspection.Id, draft.Book, draft.Content, Fixture.Now);
        engine = last!;
    }

    private RecordCorrection Wrong() =>
        RecordCorrection.Read(engine, 2, "Measured, Engine: oil pressure 72 psi (55–95 psi).", "misread").Correction!;

    // 14 CFR 43.9(a) and 43.12, from memory: what was wrong stays readable, what is right is signed by itself.
    [Fact]
    public void It_names_the_record_quotes_what_is_wrong_and_says_how_it_should_read()
    {
        var draft = RecordWriter.Correcting(engine, Wrong(), aircraft, Fixture.Rules, signer, Fixture.Today.AddDays(3));
        draft.Book.ShouldBe(Book.Engine);
        string Said(string field) => $"{draft.Content[field]}";
        Said("title").ShouldBe("Correction, engine entry");
        Said("extent").ShouldBe("Correction of record 2, “Engine entry” of 2026-11-23, signed by Ines Test.");
        draft.Content["work"]!.AsArray().Select(line => $"{line}")
            .ShouldBe(["It says: “Measured, Engine: oil pressure 70 psi (55–95 psi).”",
            "It should read: “Measured, Engine: oil pressure 72 psi (55–95 psi).”", "Why: misread"]);
        (Said("item"), Said("serial"), Said("date"), Said("timeInService")).ShouldBe(("Engine", "E-1", "2026-11-26", "1120.5 h"));
        Said("certificate").ShouldBe("mechanic with inspection authorization, 77");
        draft.Content.ContainsKey("airworthy").ShouldBeFalse("it says nothing new of the aircraft");
    }

    [Fact]
    public void It_joins_the_chain_and_a_correction_can_be_corrected_too()
    {
        SignedRecord After(SignedRecord of, RecordCorrection correction) => SignedRecord.After(of, of.AircraftId, of.InspectionId, of.Book,
            RecordWriter.Correcting(of, correction, aircraft, Fixture.Rules, signer, Fixture.Today).Content, Fixture.Now);
        var first = After(engine, Wrong());
        (engine.Corrects, first.Corrects).ShouldBe((null, 2));
        var second = After(first, RecordCorrection.Read(first, 2, "It should read: 71 psi", "misread again").Correction!);
        second.Corrects.ShouldBe(3);
        $"{second.Text()["title"]}".ShouldBe("Correction, engine entry");
    }

    // An unairworthy statement that is "corrected" to an airworthy one would be worth the paper it stands on.
    [Fact]
    public void Neither_a_statement_nor_a_list_of_discrepancies_is_corrected()
    {
        RecordCorrection.LinesOf(engine).ShouldNotContain($"{engine.Text()["statement"]}");
        var list = SignedRecord.After(engine, engine.AircraftId, engine.InspectionId, Book.DiscrepancyList, engine.Text(), Fixture.Now);
        RecordCorrection.Read(list, 0, "nothing was found", "by mistake").Refusal!.Field.ShouldBe("line");
    }

    [Theory]
    [InlineData(null, "right", "why", "line")]
    [InlineData(99, "right", "why", "line")]
    [InlineData(2, " ", "why", "reads")]
    [InlineData(2, "Measured, Engine: oil pressure 70 psi (55–95 psi).", "why", "reads")]
    [InlineData(2, "right", "", "why")]
    public void Without_a_line_of_the_record_other_words_and_a_reason_nothing_is_corrected(int? line, string reads, string why,
        string field) =>
        RecordCorrection.Read(engine, line, reads, why).Refusal!.Field.ShouldBe(field);
}
