using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>
/// Lengths and areas on a picture. Uncertainties by the law of propagation of NIST TN 1297 (from memory), each
/// worked by hand beside its check.
/// </summary>
public class PhotoMeasureTests
{
    private static readonly Photo Photo = new("ab", 4000, 3000, null, Fixture.Now);

    private static Annotation Mark(AnnotationKind kind, double pick, params (double X, double Y)[] points) =>
        new(kind, [.. points.Select(point => new Spot(point.X, point.Y))], PickPixels: pick);

    private static Annotation Scale(double known, double off, double pick, (double X, double Y) from, (double X, double Y) to) =>
        Mark(AnnotationKind.Scale, pick, from, to) with { KnownMm = known, KnownUncertaintyMm = off };

    // A rule: 50 mm ± 0.1 over 1000 px, so 0.05 mm/px. A crack of 300 px along 3-4-5: 180 and 240 px. Length 15 mm.
    // Picks of 2 px: u(300) = 2√2 = 2.828 px → 0.943 %; of the scale 0.283 % and 0.2 %.
    // u = 15 · √(0.00943² + 0.00283² + 0.002²) = 0.1506 mm; two of them 0.301 mm.
    [Fact]
    public void A_crack_measures_what_the_rule_beside_it_says()
    {
        var scale = PhotoScale.Of([Scale(50, 0.1, 2, (100, 100), (1100, 100))])!;
        var crack = scale.Measure(Mark(AnnotationKind.Length, 2, (500, 500), (680, 740)));
        crack.Value.ShouldBe(15, 1e-9);
        crack.Uncertainty.ShouldBe(0.3012, 0.0005);
        crack.InWords.ShouldBe("15.00 ± 0.30 mm (0.591 ± 0.012 in)");
    }

    // In a straight line of three points the middle one adds nothing: it can slide along. A right angle adds √2 · u at its corner:
    // 400 px of two legs: ends 2² + 2², corner (1² + 1²) · 2² = 8, so u = √16 = 4 px.
    [Fact]
    public void A_bend_adds_to_the_uncertainty_and_a_straight_line_does_not()
    {
        var scale = PhotoScale.Of([Scale(100, 0, 0.000001, (0, 0), (1000, 0))])!;
        var two = scale.Measure(Mark(AnnotationKind.Length, 2, (0, 0), (400, 0)));
        var three = scale.Measure(Mark(AnnotationKind.Length, 2, (0, 0), (200, 0), (400, 0)));
        three.ShouldBe(two);
        var bent = scale.Measure(Mark(AnnotationKind.Length, 2, (0, 0), (200, 0), (200, 200)));
        bent.Value.ShouldBe(40, 1e-9);
        bent.Uncertainty.ShouldBe(2 * 4 * 0.1, 1e-6);
    }

    // A square of 200 px by picks of 1 px at 0.1 mm/px: 400 mm². Each corner: ½ · diagonal 282.84 px = 141.42; four of
    // them √(4 · 141.42²) = 282.84 px²,
    // × 0.01 = 2.828 mm². A scale known to 1 % counts twice: 2 % of 400 = 8 mm². u = √(2.828² + 8²) = 8.485; two of them 16.97 mm².
    [Fact]
    public void A_patch_counts_the_scale_twice()
    {
        var scale = PhotoScale.Of([Scale(100, 1, 0.000001, (0, 0), (1000, 0))])!;
        var patch = scale.Measure(Mark(AnnotationKind.Patch, 1, (100, 100), (300, 100), (300, 300), (100, 300)));
        patch.Value.ShouldBe(400, 1e-9);
        patch.Uncertainty.ShouldBe(16.97, 0.01);
        patch.InWords.ShouldBe("400 ± 17 mm² (0.620 ± 0.026 in²)");
        scale.Measure(Mark(AnnotationKind.Patch, 1, (100, 300), (300, 300), (300, 100), (100, 100))).Value.ShouldBe(400, 1e-9,
            "drawn the other way round");
    }

    [Fact]
    public void Without_a_scale_nothing_is_measured()
    {
        PhotoScale.Of([Mark(AnnotationKind.Length, 2, (0, 0), (10, 0))]).ShouldBeNull();
        (Photo with { Annotations = [Mark(AnnotationKind.Length, 2, (0, 0), (10, 0))] }).Measured.ShouldBeEmpty();
    }

    public static TheoryData<Annotation, string> Wrong => new()
    {
        { Mark(AnnotationKind.Arrow, 2, (1, 1)), "2 points" },
        { Mark(AnnotationKind.Patch, 2, (1, 1), (2, 2)), "3 to 200 points" },
        { Mark(AnnotationKind.Ring, 2, (1, 1), (4001, 2)), "outside the picture" },
        { Mark(AnnotationKind.Ring, 2, (double.NaN, 1), (40, 2)), "outside the picture" },
        { Mark(AnnotationKind.Words, 2, (1, 1)), "1 to 80 characters" },
        { Mark(AnnotationKind.Length, 2, (5, 5), (5, 5)), "lie on one another" },
        { Mark(AnnotationKind.Length, 0, (5, 5), (50, 5)), "up to 500 pixels" },
        { Scale(0, 0, 2, (5, 5), (500, 5)), "true distance" },
        { Scale(10, 10, 2, (5, 5), (500, 5)), "true distance" },
        { Mark(AnnotationKind.Scale, 2, (5, 5), (500, 5)), "true distance" },
        { new((AnnotationKind)42, [new(1, 1), new(2, 2)]), "points" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_can_not_be_drawn_is_refused_in_words(Annotation annotation, string says) =>
        Annotation.Check([annotation], Photo)!.Message.ShouldContain(says);

    [Theory]
    [InlineData("US cent, across", "40", 19.05, 0.05)]
    [InlineData("US cent, across", "", 19.05, 0.05)]
    [InlineData("rivet pitch", "25,4", 25.4, 0.5)]
    [InlineData("rivet pitch", "about 25", null, 0.5)]
    public void A_scale_is_as_long_as_what_lies_there_and_is_typed_where_that_has_no_size_of_its_own(string title, string typed,
        double? mm, double off)
    {
        var scale = KnownLength.All.Single(known => known.Title == title).Along(Mark(AnnotationKind.Scale, 1, (0, 0), (100, 0)), typed);
        (scale.Words, scale.KnownMm, scale.KnownUncertaintyMm).ShouldBe((title, mm, off));
        (PhotoScale.Of([scale]) is null).ShouldBe(mm is null);
    }

    [Fact]
    public void One_picture_has_one_scale()
    {
        var scale = Scale(50, 0.1, 2, (100, 100), (1100, 100));
        Annotation.Check([scale], Photo).ShouldBeNull();
        Annotation.Check([scale, scale], Photo)!.Message.ShouldContain("one scale");
    }

    [Fact]
    public void Pictures_of_one_burst_stand_together_in_the_order_they_came()
    {
        DateTime at = new(2026, 11, 23, 10, 0, 0);
        Photo Taken(string sha, double? seconds) => new(sha, 10, 10, seconds is { } later ? at.AddSeconds(later) : null, Fixture.Now);
        var bursts = Photo.Bursts([Taken("a", 0), Taken("b", 1.5), Taken("c", 3.4), Taken("d", 6), Taken("e", null), Taken("f", null)]);
        bursts.Select(burst => string.Concat(burst.Select(photo => photo.Sha256))).ShouldBe(["abc", "d", "e", "f"]);
    }

    [Theory]
    [InlineData("cent", 0.750)]
    [InlineData("quarter", 0.955)]
    public void A_coin_is_as_wide_as_the_law_says(string coin, double inches) =>
        KnownLength.All.Single(known => known.Title.Contains(coin)).Mm!.Value.ShouldBe(inches * 25.4, 0.005,
            "31 U.S.C. 5112(a), from memory");
}
