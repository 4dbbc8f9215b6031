using System.Net;
using System.Net.Http.Headers;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>The door, as strangers try it and as a web server in front of it does.</summary>
public sealed class DoorTests(DemoServer server) : IClassFixture<DemoServer>
{
    private sealed class Counting(IPasswordHasher<Account> real) : IPasswordHasher<Account>
    {
        public int Checked { get; private set; }

        public string HashPassword(Account user, string password) => real.HashPassword(user, password);

        public PasswordVerificationResult VerifyHashedPassword(Account user, string hashedPassword, string providedPassword)
        {
            Checked++;
            return real.VerifyHashedPassword(user, hashedPassword, providedPassword);
        }
    }

    private async Task<(string? Said, int Hashes, int Lines)> TryAsync(string name, string password)
    {
        await using var scope = server.Services.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var hasher = new Counting(services.GetRequiredService<IPasswordHasher<Account>>());
        services.GetRequiredService<Microsoft.AspNetCore.Http.IHttpContextAccessor>().HttpContext =
            new Microsoft.AspNetCore.Http.DefaultHttpContext { RequestServices = services };
        var before = server.With(db => db.Log.Count());
        var door = new Door(services.GetRequiredService<RivetDb>(), services.GetRequiredService<SignInManager<Account>>(), hasher,
            server.Clock);
        var said = await door.EnterAsync(name, password, default);
        return (said, hasher.Checked, server.With(db => db.Log.Count()) - before);
    }

    [Fact]
    public async Task A_name_that_nobody_has_gets_the_same_words_and_costs_the_same()
    {
        var unknown = await TryAsync("nobody-here", "wrong password");
        unknown.ShouldBe((Door.Refused, 1, 1), "one hash and one write");
        (await TryAsync("wim", "wrong password")).ShouldBe(unknown);
        foreach (var _ in Enumerable.Range(0, 5))
            await TryAsync("piet", "wrong password");
        (await TryAsync("piet", DemoShop.Password)).ShouldBe(unknown, "one that rests, with the right password");
        (await TryAsync("", "")).ShouldBe(unknown);
        server.With(db => db.Log.OrderByDescending(line => line.Number).First(line => line.About != "as Piet Oduvane").About)
            .ShouldBe("a name that nobody has", "what was typed may be a password");
    }

    [Fact]
    public async Task Wrong_passwords_at_the_door_do_not_rest_the_signature_nor_the_other_way()
    {
        var ines = await server.EnterAsync("ines");
        async Task<string> SignAsync(string password) => (await Visitor.ParseAsync(await ines.PostAsync("/me?handler=Password",
            ("post", $"{Guid.NewGuid()}"), ("before", password), ("password", "x")))).QuerySelector(".field-problem")!.TextContent;
        var stranger = server.Stranger();
        foreach (var _ in Enumerable.Range(0, 6))
            await stranger.PostAsync("/enter", ("name", "ines"), ("password", "wrong-password"));
        (await SignAsync(DemoShop.Password)).ShouldContain("From 10", Case.Sensitive, "the password before was right");
        (await stranger.PostAsync("/enter", ("name", "ines"), ("password", DemoShop.Password))).StatusCode.ShouldBe(HttpStatusCode.OK,
            "the door rests");
        await server.SaveAsync(db => db.Users.Single(user => user.UserName == "ines").LockoutEnd = null);

        foreach (var _ in Enumerable.Range(0, 5))
            await SignAsync("wrong");
        (await SignAsync(DemoShop.Password)).ShouldContain("signing rests for five minutes");
        (await server.Stranger().PostAsync("/enter", ("name", "ines"), ("password", DemoShop.Password))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect, "the door doesn't");
        await server.SaveAsync(db => db.Users.Single(user => user.UserName == "ines").SigningRestsUntil = null);
    }

    // What says its length is refused by it, before any of it is sent.
    [Fact]
    public async Task A_body_that_no_stranger_needs_is_refused_before_it_is_on_the_disk()
    {
        using var http = new HttpClient(new SocketsHttpHandler { Expect100ContinueTimeout = TimeSpan.FromMinutes(1) })
            { BaseAddress = server.Address };
        foreach (var path in StrangersPaths)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = new Endless(200_000, said: true) };
            request.Headers.ExpectContinue = true;
            (await http.SendAsync(request)).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge, path);
        }
    }

    // What doesn't is read as far as a form may be long. Whoever still sends then finds the connection closed, perhaps before the answer
    // reaches them: which of the two they see is the network's.
    [Fact]
    public async Task A_body_that_does_not_say_its_length_is_not_read_to_its_end()
    {
        using var http = new HttpClient { BaseAddress = server.Address };
        foreach (var path in StrangersPaths)
        {
            using var content = new Endless(400_000_000, said: false);
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = content };
            try
            {
                (await http.SendAsync(request)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, path);
            }
            catch (HttpRequestException closed)
            {
                closed.HttpRequestError.ShouldNotBe(HttpRequestError.ConnectionError, path);
            }
            content.Sent.ShouldBeLessThan(40_000_000, $"{path}: what the network holds between the two, and no more");
        }
    }

    private static readonly string[] StrangersPaths = ["/enter", "/first-run", "/leave", $"/owner/{new string('0', 64)}"];

    // A form with a file of so many bytes, with or without its length.
    private sealed class Endless : HttpContent
    {
        private readonly long length;
        private readonly bool said;

        public Endless(long length, bool said)
        {
            (this.length, this.said) = (length, said);
            Headers.ContentType = new("multipart/form-data") { Parameters = { new NameValueHeaderValue("boundary", "b") } };
        }

        public long Sent { get; private set; }

        protected override async Task SerializeToStreamAsync(System.IO.Stream stream, TransportContext? context)
        {
            var part = new byte[20_000];
            for (; Sent < length; Sent += part.Length)
                await stream.WriteAsync(part);
        }

        protected override bool TryComputeLength(out long length)
        {
            length = this.length;
            return said;
        }
    }

    [Fact]
    public async Task Health_waits_for_nobody_who_writes_and_tells_a_disk_that_takes_nothing()
    {
        await using (var other = new SqliteConnection(server.Data.ConnectionString))
        {
            await other.OpenAsync();
            await using var held = other.BeginTransaction(deferred: false);
            (await server.Stranger().GetAsync("/health")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }
        var gone = new DataFolder(Path.Combine(Path.GetTempPath(), $"rivet-gone-{Guid.NewGuid():N}"));
        Directory.Delete(gone.Path, recursive: true);
        await using var scope = server.Services.CreateAsyncScope();
        (await new Health(gone).StatusAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), default)).ShouldContain("disk");
        Directory.EnumerateFiles(server.Data.Path, "health-*").ShouldBeEmpty();
    }

    private static async Task<HttpResponseMessage> AskAsync(Uri at, string path, string host, string? forwardedFor = null,
        string? name = null)
    {
        using var http = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, UseCookies = false }) { BaseAddress = at };
        using var request = new HttpRequestMessage(name is null ? HttpMethod.Get : HttpMethod.Post, path);
        request.Headers.Host = host;
        request.Headers.Add("X-Forwarded-Proto", "https");
        if (forwardedFor is not null)
            request.Headers.Add("X-Forwarded-For", forwardedFor);
        if (name is null)
            return await http.SendAsync(request);
        var page = await http.SendAsync(Copy(request));
        request.Headers.Add("Cookie", page.Headers.GetValues("Set-Cookie").First().Split(';')[0]);
        var token = (await Visitor.ParseAsync(page)).QuerySelector("input[name=__RequestVerificationToken]")!;
        request.Content = new FormUrlEncodedContent([new("__RequestVerificationToken",
            ((AngleSharp.Html.Dom.IHtmlInputElement)token).Value), new("name", name), new("password", DemoShop.Password)]);
        return await http.SendAsync(request);

        static HttpRequestMessage Copy(HttpRequestMessage of)
        {
            var copy = new HttpRequestMessage(HttpMethod.Get, of.RequestUri);
            copy.Headers.Host = of.Headers.Host;
            copy.Headers.Add("X-Forwarded-Proto", "https");
            return copy;
        }
    }

    private static async Task<T> BehindAsync<T>(string proxy, Func<Uri, IServiceProvider, Task<T>> ask)
    {
        var data = new DataFolder(Path.Combine(Path.GetTempPath(), $"rivet-behind-{Guid.NewGuid():N}"));
        await using var app = await RivetApp.OpenAsync(new(data) { Port = 0, Demo = false, PublicUrl = new("https://rivet.example"),
            Proxy = IPAddress.Parse(proxy), SignInsPerMinute = 2 }, default);
        await using (var scope = app.Services.CreateAsyncScope())
        {
            var (db, users) = (scope.ServiceProvider.GetRequiredService<RivetDb>(),
                scope.ServiceProvider.GetRequiredService<UserManager<Account>>());
            var person = new Person(Guid.NewGuid(), "Ada Finch", "AF", [Role.ShopAdmin], []);
            await db.AddAsync(person, async () =>
                (await users.CreateAsync(new() { Id = Guid.NewGuid(), UserName = "ada", PersonId = person.Id },
                DemoShop.Password)).Succeeded, default);
        }
        await app.StartAsync();
        try
        {
            return await ask(new(app.Urls.First()), app.Services);
        }
        finally
        {
            await app.StopAsync();
            Directory.Delete(data.Path, recursive: true);
        }
    }

    [Fact]
    public Task Behind_a_web_server_cookies_are_secure_hosts_are_known_and_limits_go_by_who_asks() => BehindAsync("127.0.0.1",
        async (at, services) =>
        {
            (await AskAsync(at, "/enter", "elsewhere.example")).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "an unknown host");
            var page = await AskAsync(at, "/enter", "rivet.example");
            page.StatusCode.ShouldBe(HttpStatusCode.OK);
            page.Headers.GetValues("Strict-Transport-Security").ShouldHaveSingleItem();
            page.Headers.GetValues("Set-Cookie").ShouldAllBe(cookie => cookie.Contains("; secure"));
            var entered = await AskAsync(at, "/enter", "rivet.example", "203.0.113.5", "ada");
            entered.StatusCode.ShouldBe(HttpStatusCode.Redirect);
            entered.Headers.GetValues("Set-Cookie").ShouldAllBe(cookie => cookie.Contains("; secure"));
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<RivetDb>().Log.Single().From.ShouldBe("203.0.113.5", "the real address");
            // Two a minute from one address, and as many from another.
            await AskAsync(at, "/enter", "rivet.example", "203.0.113.5", "nobody");
            (await AskAsync(at, "/enter", "rivet.example", "203.0.113.5", "nobody")).StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
            (await AskAsync(at, "/enter", "rivet.example", "203.0.113.6", "ada")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
            return 0;
        });

    [Fact]
    public Task What_another_says_of_who_asks_is_not_believed() => BehindAsync("10.9.9.9", async (at, services) =>
    {
        await AskAsync(at, "/enter", "rivet.example", "203.0.113.5", "ada");
        await using var scope = services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<RivetDb>().Log.ShouldAllBe(line => line.From == "127.0.0.1");
        return 0;
    });

    [Theory]
    [InlineData("https://rivet.example", "https://rivet.example")]
    [InlineData("https://rivet.example:8443", "https://rivet.example:8443")]
    [InlineData(null, "http://127.0.0.1:5080")]
    public void What_is_given_out_leads_where_people_reach_it(string? url, string start) =>
        new RivetSettings(server.Data) { PublicUrl = url is null ? null
            : new(url) }.Address(new Microsoft.AspNetCore.Http.DefaultHttpContext
            { Request = { Scheme = "http", Host = new("127.0.0.1:5080") } }.Request).ShouldBe(start);

    [Fact]
    public void The_code_of_the_first_run_is_typed_as_it_is_read()
    {
        var code = new FirstRunCode();
        code.Is(code.Code.ToLowerInvariant().Replace("-", " ")).ShouldBeTrue();
        code.Is("").ShouldBeFalse();
        code.Is(null).ShouldBeFalse();
        code.Is(new FirstRunCode().Code).ShouldBeFalse();
    }
}
